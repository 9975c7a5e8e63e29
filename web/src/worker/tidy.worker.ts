import { expose } from "comlink";
import { findingKey, tidy, type Finding, type Thing, type TidyOptions, type TidyResult } from "@ash-edge/core/tidy";

/**
 * Which findings are mended: all, those of a kind, one, or one with everything that lies double; what was left as it is
 * never is.
 */
export type Mends =
  | { readonly which: "all" }
  | { readonly which: "code"; readonly code: string }
  | { readonly which: "key" | "key with doubles"; readonly key: string };

export type TidyInput = {
  readonly things: readonly Thing[];
  readonly options: Pick<TidyOptions, "tolerance" | "ignore" | "sharedEdges">;
  readonly mends: Mends;
  readonly left: ReadonlySet<string>;
};

/** A finding by its key. */
export type MetFinding = Finding & { readonly key: string };
export type TidyMet = Omit<TidyResult, "findings"> & { readonly findings: readonly MetFinding[] };

const accepts = ({ mends, left }: TidyInput): ((finding: Omit<Finding, "fixed">) => boolean) => {
  switch (mends.which) {
    case "all":
      return (finding) => !left.has(findingKey(finding));
    case "code":
      return (finding) => finding.code === mends.code && !left.has(findingKey(finding));
    case "key":
      return (finding) => findingKey(finding) === mends.key;
    case "key with doubles":
      return (finding) => {
        const key = findingKey(finding);
        const double = finding.code === "duplicate" || finding.code === "overlap";
        return key === mends.key || (double && !left.has(key));
      };
  }
};

const work = (input: TidyInput, report: (part: number) => void): TidyMet => {
  const result = tidy(input.things, { ...input.options, accept: accepts(input), report });
  return { ...result, findings: result.findings.map((finding) => ({ ...finding, key: findingKey(finding) })) };
};

export const worker = { work };
export type TidyWorker = typeof worker;
expose(worker);
