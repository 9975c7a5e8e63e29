import { type Sketch } from "./sketch.ts";
/** 0413: a hearth with a bowed front, notched back corners and a vent slot; photographed askew. */
export declare const hearthStone: () => Sketch;
