import { rgbOf } from "@ash-edge/core/drawing";

/** A colour that came with a file: what it looks like, and what the file calls it. */
export const FileColour = ({ colour, bare = false }: { colour: string; bare?: boolean }) => {
  const rgb = rgbOf(colour);
  return (
    <>
      <span
        aria-hidden
        style={rgb && { backgroundColor: `rgb(${rgb.join(" ")})` }}
        className={`inline-block h-3 w-3 shrink-0 rounded-sm border border-hair ${rgb ? "" : "bg-ink"}`}
      />
      {!bare && (
        <span title="As the file named it" className="figures truncate">
          {colour}
        </span>
      )}
    </>
  );
};
