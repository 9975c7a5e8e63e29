import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useRef, useState } from "react";
import { sketchesOf, type BlobRecord, type Database } from "../store/index.ts";

/** A sketch picture ready to be shown: `width` and `height` are its own pixels, whatever is shown of them. */
export type ShownSketch = {
  readonly id: string;
  readonly name: string;
  readonly url: string;
  readonly image: HTMLImageElement;
  readonly width: number;
  readonly height: number;
  /** The photo that it was straightened from. */
  readonly from?: string;
};

/** Larger pictures are scaled down for showing, and kept whole in the store. */
const SHOWN_PX = 2600;

const load = async (url: string): Promise<HTMLImageElement> => {
  const image = new Image();
  image.src = url;
  await image.decode();
  return image;
};

const show = async ({ id, name, bytes, type, from }: BlobRecord): Promise<ShownSketch> => {
  const blob = new Blob([bytes.slice()], { type });
  let url = URL.createObjectURL(blob);
  let image = await load(url);
  const [width, height] = [image.naturalWidth, image.naturalHeight];
  const long = Math.max(width, height);
  if (long > SHOWN_PX && type !== "image/svg+xml") {
    const ratio = SHOWN_PX / long;
    const small = await createImageBitmap(image, {
      resizeWidth: Math.round(width * ratio),
      resizeHeight: Math.round(height * ratio),
      resizeQuality: "high",
    });
    const canvas = new OffscreenCanvas(small.width, small.height);
    canvas.getContext("2d")!.drawImage(small, 0, 0);
    small.close();
    URL.revokeObjectURL(url);
    url = URL.createObjectURL(await canvas.convertToBlob({ type: "image/jpeg", quality: 0.9 }));
    image = await load(url);
  }
  return { id, name, url, image, width, height, ...(from ? { from } : {}) };
};

/** The sketches of a job as something an image can show, in their order; undefined until they are there. */
export const useSketches = (database: Database, job: string | undefined): readonly ShownSketch[] | undefined => {
  const blobs = useLiveQuery(async () => (job ? sketchesOf(database, job) : []), [database, job]);
  const known = useRef(new Map<string, Promise<ShownSketch>>());
  const [shown, setShown] = useState<readonly ShownSketch[]>();
  useEffect(() => {
    if (!blobs) return undefined;
    let current = true;
    const made = blobs.map((blob) => {
      const one = known.current.get(blob.id) ?? show(blob);
      known.current.set(blob.id, one);
      return one;
    });
    void Promise.allSettled(made).then((all) => {
      if (current) setShown(all.flatMap((one) => (one.status === "fulfilled" ? [one.value] : [])));
    });
    return () => void (current = false);
  }, [blobs]);
  useEffect(() => {
    const kept = known.current;
    return () => {
      for (const one of kept.values()) void one.then(({ url }) => URL.revokeObjectURL(url)).catch(() => undefined);
      kept.clear();
    };
  }, []);
  return shown;
};
