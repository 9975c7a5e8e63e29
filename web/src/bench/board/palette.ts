const NAMES = [
  "board",
  "panel",
  "ink",
  "soft",
  "hair",
  "ember",
  "moss",
  "fault",
  "caution",
  "inside",
  "mark",
  "layout",
] as const;

/** The colours of the board, read from the tokens of the theme in force. */
export type Palette = Readonly<Record<(typeof NAMES)[number], string>>;

export const readPalette = (): Palette => {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()])) as Palette;
};
