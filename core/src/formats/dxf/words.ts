/** Signs that texts of every version write by two per cent signs and a letter. */
const SIGNS: Readonly<Record<string, string>> = { c: "Ø", d: "°", p: "±", "%": "%" };

/**
 * The words of a TEXT or an MTEXT as they read, paragraphs on lines of their own, without what says how they look.
 * Codes as the format’s reference lists them (from memory): `\P` a new line, `\~` a blank, `\S` one over the other,
 * `\L` and its like by themselves, others up to a semicolon; braces group; `%%c`, `%%d`, `%%p`; `\U+` and four digits.
 */
export const plainWords = (text: string, type: "TEXT" | "MTEXT"): string => {
  const letters = text
    .replace(/\\U\+([\da-f]{4})/gi, (_, code: string) => String.fromCharCode(parseInt(code, 16)))
    .replace(/%%([cdp%])/gi, (_, sign: string) => SIGNS[sign.toLowerCase()]!)
    .replace(/%%[uo]/gi, "");
  const words =
    type === "TEXT"
      ? letters
      : letters.replace(
          /\\([\\{}])|\\P|\\~|\\S([^;]*);|\\[LlOoKk]|\\[ACFHQTWp][^;]*;|\\f[^;]*;|[{}]|\^[JIM]/g,
          (code, literal?: string, stacked?: string) =>
            literal ??
            stacked?.replace(/[\^#]/, "/") ??
            (code === "\\P" || code === "^J" ? "\n" : code === "\\~" ? " " : ""),
        );
  return words
    .split("\n")
    .map((line) => line.trim())
    .join("\n")
    .trim();
};
