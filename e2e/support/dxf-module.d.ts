declare module "dxf" {
  export class Helper {
    constructor(text: string);
    readonly parsed: {
      readonly entities: readonly {
        readonly type: string;
        readonly layer: string;
        readonly vertices?: readonly { readonly x: number; readonly y: number }[];
      }[];
    };
  }
}
