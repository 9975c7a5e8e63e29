/** Wrong arguments or an unusable file: one line on standard error, exit 2. */
export class Unusable extends Error {}
