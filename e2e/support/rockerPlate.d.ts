import type { Bench } from "./bench.ts";
/** The numbers of the rocker plate, in inches. */
export declare const D = 6.625;
export declare const BIG = 1.125;
export declare const SMALL = 0.75;
export declare const BELLY = 14;
/** Draws the rocker plate from its layout lines, step by step, with mouse and keyboard; `between` runs after every step. */
export declare const drawRockerPlate: (bench: Bench, between?: () => Promise<void>) => Promise<void>;
