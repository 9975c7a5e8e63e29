import { calloutText, readLedgerLine, toleranceText, type LedgerLine } from "@ash-edge/core/callouts";
import { showLengthUnit, type Unit } from "@ash-edge/core/numeric";
import { sayRefusal } from "@ash-edge/core/say";

const KINDS = {
  length: "length",
  centres: "centres",
  diameter: "diameter",
  radius: "radius",
  angle: "angle",
  count: "how many",
  thread: "thread",
  chamfer: "chamfer",
} as const;

/** What a line would be written down as, in words. */
export const readingWords = ({ callouts, thickness }: LedgerLine, unit: Unit): string =>
  [
    ...callouts.map((written) => {
      const callout = { ...written, id: 0, links: [] };
      const more = [
        toleranceText(callout),
        callout.throughout ? "wherever it is found" : "",
        callout.reference ? "for reference" : "",
      ];
      return [KINDS[callout.kind], calloutText(callout, unit), ...more, callout.name && `“${callout.name}”`]
        .filter(Boolean)
        .join(" ");
    }),
    ...(thickness === undefined ? [] : [`the job’s thickness, ${showLengthUnit(thickness, unit)}`]),
  ].join(" and ");

/** Lines that would be callouts, each with how it reads; what can't be read stays and can be changed. */
export const CalloutLines = ({
  lines,
  unit,
  onChange,
}: {
  lines: readonly string[];
  unit: Unit;
  onChange: (lines: readonly string[]) => void;
}) => (
  <ul className="min-h-0 flex-1 overflow-y-auto">
    {lines.map((line, i) => {
      const one = readLedgerLine(line, unit);
      const look = !one.ok ? "text-fault" : one.value.doubt ? "text-caution" : "text-moss";
      return (
        <li key={i} className="py-0.5">
          <input
            aria-label={`Line ${i + 1}`}
            value={line}
            spellCheck={false}
            onChange={(event) => onChange(lines.map((other, j) => (j === i ? event.target.value : other)))}
            className="figures h-6 w-full rounded-card border border-hair bg-board px-2 text-[13px]"
          />
          <span className={`block text-xs ${look}`}>
            {one.ok ? `= ${readingWords(one.value, unit)}` : sayRefusal(one.refusal, unit)}
            {one.ok && one.value.doubt && ". Look at it: another number stays in its name."}
          </span>
        </li>
      );
    })}
  </ul>
);
