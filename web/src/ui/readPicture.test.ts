import { expect, it } from "vitest";
import { readPicture } from "./readPicture.ts";

it.each([
  [{ name: "huge.jpg", size: 61_000_000 }, "huge.jpg has 61 MB; up to 60 MB work."],
  [{ name: "nothing.png", size: 0 }, "nothing.png is empty."],
])("%j is refused before it is read", async (file, sentence) => {
  await expect(readPicture(file as File)).rejects.toThrow(sentence);
});
