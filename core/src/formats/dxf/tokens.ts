import { done, refuse, type Outcome } from "../../numeric/outcome.ts";

/** One group of an ASCII DXF: its code, its text, and the line of the code. */
export type Token = { readonly code: number; readonly text: string; readonly line: number };

/** The groups of an ASCII DXF file, strictly: every code a whole number, every code with its value, the end mark there. */
export const readTokens = (text: string): Outcome<readonly Token[]> => {
  if (text.trim() === "") return refuse("dxf-empty");
  if (/^[\w ]{0,10}Binary DXF\r?\n/.test(text)) return refuse("dxf-binary");
  if (text.includes("\0")) return refuse("dxf-not-text");
  const tokens: Token[] = [];
  let line = 0;
  let at = 0;
  const nextLine = (): string | undefined => {
    if (at >= text.length) return undefined;
    const end = text.indexOf("\n", at);
    const stop = end < 0 ? text.length : end;
    const found = text.slice(at, text[stop - 1] === "\r" ? stop - 1 : stop);
    at = stop + 1;
    line += 1;
    return found;
  };
  for (;;) {
    const codeText = nextLine();
    if (codeText === undefined) return refuse("dxf-truncated", { line });
    const code = /^\s*-?\d{1,4}\s*$/.test(codeText) ? Number(codeText) : NaN;
    if (!Number.isInteger(code)) return refuse("dxf-bad-code", { line, found: codeText.trim().slice(0, 24) });
    const at = line;
    const value = nextLine();
    if (value === undefined) return refuse("dxf-truncated", { line });
    tokens.push({ code, text: value, line: at });
    if (code === 0 && value.trim() === "EOF") return done(tokens);
  }
};
