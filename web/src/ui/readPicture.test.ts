import { expect, it } from "vitest";
import { readPicture } from "./readPicture.ts";

it.each([
  [{ name: "huge.jpg", size: 61_000_000 }, "huge.jpg has 61 MB; up to 60 MB work."],
  [{ name: "nothing.png", size: 0 }, "nothing.png is empty."],
])("%j is refused before it is read", async (file, sentence) => {
  await expect(readPicture(file as File)).rejects.toThrow(sentence);
});

it("a phone's HEIC photo is refused with what to do, whatever it is called", async () => {
  const photo = new File([new Uint8Array([0, 0, 0, 24]), "ftypheic", new Uint8Array(40)], "photo.jpg");
  await expect(readPicture(photo)).rejects.toThrow("photo.jpg is a HEIC photo, which browsers can’t show. Open it");
});
