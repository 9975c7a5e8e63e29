/*
 * The lettering of dimensions and notes is the application's own fixed-width font, so that every letter is as wide as
 * the next and core, board, picture and file agree on it without measuring. The figures are those of the shipped font
 * files; a test holds them against the files.
 */

/** Width of a letter as part of the height of capitals: 600 of 698 units. */
export const LETTER_WIDTH = 600 / 698;
/** Size of the font as part of the height of its capitals: 1000 of 698 units. */
export const FONT_SIZE = 1000 / 698;
/** How far letters hang below the line, as part of the height of capitals. */
export const DESCENT = 275 / 698;
/** Between the lines of a note, as part of the height of capitals (ISO 3098-1, table 1: 22 of 14 parts for lettering B
 * with accents, from memory). */
export const LINE_STEP = 22 / 14;
export const FONT_FAMILY = "IBM Plex Mono";

/** First and last of each row of letters that the shipped files hold, as code points. */
export const LETTERS: readonly (readonly [number, number])[] = [
  [0x20, 0x7e],
  [0xa0, 0x130],
  [0x131, 0x151],
  [0x152, 0x17f],
  [0x18f, 0x18f],
  [0x192, 0x192],
  [0x1a0, 0x1a1],
  [0x1af, 0x1b0],
  [0x1cd, 0x1dc],
  [0x1fa, 0x1ff],
  [0x218, 0x21b],
  [0x237, 0x237],
  [0x259, 0x259],
  [0x2bb, 0x2bc],
  [0x2c6, 0x2c7],
  [0x2da, 0x2da],
  [0x2dc, 0x2dd],
  [0x400, 0x45f],
  [0x490, 0x491],
  [0x4b0, 0x4b1],
  [0x1e80, 0x1e85],
  [0x1e9e, 0x1e9e],
  [0x1ef2, 0x1ef9],
  [0x2013, 0x2014],
  [0x2018, 0x201a],
  [0x201c, 0x201e],
  [0x2020, 0x2020],
  [0x2022, 0x2022],
  [0x2026, 0x2026],
  [0x2032, 0x2033],
  [0x2039, 0x203a],
  [0x20ac, 0x20ac],
  [0x2116, 0x2116],
  [0x2122, 0x2122],
  [0x2191, 0x2191],
  [0x2193, 0x2193],
  [0x2212, 0x2212],
  [0x2215, 0x2215],
];

/** The first letter of a text that the lettering lacks; undefined where it has all. Lines end with a line feed. */
export const missingLetter = (text: string): string | undefined =>
  [...text].find((letter) => {
    const code = letter.codePointAt(0)!;
    return letter !== "\n" && !LETTERS.some(([first, last]) => code >= first && code <= last);
  });

/** Width of one line of text whose capitals are `height` high. */
export const textWidth = (text: string, height: number): number => [...text].length * LETTER_WIDTH * height;
