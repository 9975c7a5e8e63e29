/** Control characters of both kinds, the two line separators, and the marks that turn the direction of writing. */
// eslint-disable-next-line no-control-regex
const UNSEEN = /[\u0000-\u001f\u007f-\u009f\u2028\u2029\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]+/g;

/** Names are no longer than so many characters: what DXF allows at most. */
const LONGEST = 255;

/**
 * A name as it may stand in a drawing, a file, a table or a terminal: on one line, without what can't be seen, not
 * endless; empty where nothing else is left. Names that come from outside are cleaned so where they come in.
 */
export const plainName = (name: string): string => plainText(name).trim().slice(0, LONGEST);

/** A text without control characters, each run of them a blank. */
export const plainText = (text: string): string => text.replace(UNSEEN, " ");
