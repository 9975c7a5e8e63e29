declare module "plotly.js-basic-dist-min" {
  /** A place with a chart in it. */
  export type Drawn = HTMLElement & {
    readonly on: (
      event: "plotly_click",
      tell: (event: { readonly points: readonly { readonly pointNumber: number }[] }) => void,
    ) => void;
    readonly removeAllListeners: (event: "plotly_click") => void;
  };
  export const react: (place: HTMLElement, traces: readonly object[], layout: object, config: object) => Promise<Drawn>;
  export const purge: (place: HTMLElement) => void;
}
