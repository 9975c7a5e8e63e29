/** OWASP: a text that starts with one of = + - @ is a formula to a spreadsheet, unless it is a plain number. */
export const SAFE_CSV = { newline: "\r\n", escapeFormulae: /^[=@\t\r]|^[+-](?!(?:\d+\.?\d*|\.\d+)$)/ };
