/** A DXF reader that is not ours, for tests. */
declare module "dxf" {
  export class Helper {
    constructor(text: string);
    readonly parsed: unknown;
  }
}
