import { useMemo, useState } from "react";
import { Link } from "react-router";
import { unitOf, type Drawing } from "@ash-edge/core/drawing";
import { fileAnnotations, PEOPLE_FORMATS, writeForPeople, type PeopleFormat } from "@ash-edge/core/formats";
import { sayRefusal } from "@ash-edge/core/say";
import { Segmented } from "../ui/Choice.tsx";
import { thumbnailOf } from "../store/index.ts";
import { DrawingPicture } from "../ui/DrawingPicture.tsx";
import { saveAs } from "../ui/saveAs.ts";

/** The drawing as it is drawn, with its dimensions and notes, for people to look at: never for a machine. */
export const ForPeople = ({ drawing, name }: { drawing: Drawing; name: string }) => {
  const [format, setFormat] = useState<PeopleFormat>("SVG");
  const [wrong, setWrong] = useState<string>();
  const count = drawing.annotation.size;
  const picture = useMemo(() => thumbnailOf(drawing), [drawing]);
  const displays = useMemo(() => fileAnnotations(drawing).map(({ display }) => display), [drawing]);
  const save = (): void => {
    const written = writeForPeople(drawing, format);
    setWrong(written.ok ? undefined : sayRefusal(written.refusal, unitOf(drawing)));
    if (!written.ok) return;
    const isSvg = format === "SVG";
    const file = `${name}-dimensions${isSvg ? ".svg" : ".dxf"}`;
    saveAs(file, new TextEncoder().encode(written.value), isSvg ? "image/svg+xml" : "image/vnd.dxf");
  };
  return (
    <section className="card p-4" aria-label="Drawing with dimensions">
      <h2 className="font-semibold">Drawing with dimensions</h2>
      <p className="mt-1 text-soft">
        For people: everything that is cut or marked, on its own layers, with{" "}
        {count === 0 ? "no dimensions yet" : `${count} dimension${count === 1 ? "" : "s"}, notes and marks`}. Not for a
        machine.
      </p>
      {picture && count > 0 && (
        <DrawingPicture
          thumbnail={picture}
          displays={displays}
          className="mt-3 h-44 w-full rounded-card border border-hair bg-board"
          title="The drawing with its dimensions"
        />
      )}
      <div className="mt-3 flex items-center gap-2">
        <Segmented
          label="Format of the drawing"
          options={PEOPLE_FORMATS.map((one) => [one, one === "SVG" ? one : one === "R2000" ? "DXF" : "DXF R12"])}
          value={format}
          onChange={(to) => setFormat(to as PeopleFormat)}
        />
        <button type="button" className="h-8 rounded-card border border-hair px-3 hover:border-ink" onClick={save}>
          Save the drawing
        </button>
      </div>
      <p className="mt-2">
        <Link to="../sheet" relative="path" className="underline">
          On paper: a sheet with its title block, or a template in true size
        </Link>
      </p>
      {wrong && (
        <p role="alert" className="mt-2 text-fault">
          {wrong}
        </p>
      )}
    </section>
  );
};
