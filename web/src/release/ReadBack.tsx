import type { Comparison } from "@ash-edge/core/release";

const shown = (length: number): string => String(Number(length.toPrecision(12)));

/** How a file compares with what it was written from, in a line that opens to its layers. */
export const ReadBack = ({ layers, differences }: Comparison) => {
  const things = layers.reduce((sum, { read }) => sum + read.things, 0);
  return (
    <details className="mt-2 rounded-card border border-hair px-2 py-1">
      <summary className="cursor-default">
        Read back: {differences.length === 0 ? `all ${things} the same` : `${things}, not the same`}
      </summary>
      <table className="mt-1 w-full text-xs">
        <thead className="text-left text-soft">
          <tr>
            <th scope="col" className="font-normal">
              layer
            </th>
            {["written", "read", "length written", "read"].map((head, i) => (
              <th key={i} scope="col" className="text-right font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {layers.map(({ layer, written, read }) => (
            <tr key={layer} className="border-t border-hair">
              <th scope="row" className="text-left font-normal">
                {layer}
              </th>
              {[written.things, read.things].map((n, i) => (
                <td key={i} className="figures text-right">
                  {n}
                </td>
              ))}
              {[written.length, read.length].map((length, i) => (
                <td key={i} className="figures text-right">
                  {shown(length)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
};
