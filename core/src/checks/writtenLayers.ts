import type { Check } from "./check.ts";

/**
 * Layers of which something is to be said before they are written: found by the release, which knows what of them goes
 * into the file.
 */
export const writtenLayers: Check = {
  id: "layers",
  name: "Every layer is written as it looks",
  source: "Common practice: nothing hidden is cut unnoticed.",
  find: () => [],
  says: {
    "hidden-layer": ({ layer, things }) =>
      `The layer ${layer} is hidden. What lies on it is written all the same (${things}).`,
    "locked-layer": ({ layer, things }) =>
      `The layer ${layer} is locked. What lies on it is written all the same (${things}).`,
    "tapped-odd": () =>
      "A hole with a thread mark is no true circle here, so it is cut as drawn, not drilled. Make a circle of it.",
    points: ({ points }) => `Points are not written: ${points} left out.`,
  },
};
