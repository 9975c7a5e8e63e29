import type { Severity } from "./check.ts";

/**
 * True where something closes and no error is left that was not mended: the one place in which "ready to cut" is
 * decided, on the page, at release and on the command line.
 */
export const isReady = (
  closes: boolean,
  findings: readonly { readonly severity: Severity; readonly fixed?: boolean }[],
): boolean => closes && findings.every(({ severity, fixed }) => severity !== "error" || fixed === true);
