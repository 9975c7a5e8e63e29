/** What is used of css-tree, which comes without types. */
declare module "css-tree/parser" {
  type Css = {
    readonly type: string;
    readonly name?: string;
    readonly value?: unknown;
    readonly property?: string;
    readonly important?: unknown;
    readonly matcher?: string | null;
    readonly prelude?: Css | null;
    readonly block?: { readonly children: Iterable<Css> } | null;
    readonly children?: Iterable<Css> | null;
  };
  const parse: (
    text: string,
    options?: {
      readonly context?: string;
      readonly parseValue?: boolean;
      readonly parseAtrulePrelude?: boolean;
    },
  ) => Css;
  export default parse;
  export type { Css };
}
