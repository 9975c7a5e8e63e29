declare module "plotly.js-basic-dist-min" {
  export const react: (
    place: HTMLElement,
    traces: readonly object[],
    layout: object,
    config: object,
  ) => Promise<unknown>;
  export const purge: (place: HTMLElement) => void;
}
