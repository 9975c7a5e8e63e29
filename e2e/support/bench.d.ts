import { type Locator, type Page } from "@playwright/test";
export type Place = {
  readonly x: number;
  readonly y: number;
};
/** The bench as a drafter uses it: keys, the mouse on the board at drawing coordinates, and what the panels say. */
export declare class Bench {
  readonly page: Page;
  readonly board: Locator;
  constructor(page: Page);
  open(job: string): Promise<void>;
  /** The board stands and shows its drawing. */
  ready(): Promise<void>;
  /** Where a place of the drawing is on the page. */
  at({ x, y }: Place): Promise<Place>;
  point(place: Place): Promise<void>;
  click(place: Place, modifiers?: readonly ("Shift" | "Control" | "Alt")[]): Promise<void>;
  /** Two strokes on the key grid: the bank, then the tool's place. */
  tool(keys: string, name: string): Promise<void>;
  type(text: string): Promise<void>;
  sentence(name: string): Locator;
  blank(name: string): Locator;
  callout(text: string): Locator;
  get pieces(): Locator;
  revision(): Promise<number>;
  /** Everything shown is stored. */
  saved(): Promise<void>;
  /** Reloads in the middle of the work, as a crash would. */
  reload(): Promise<void>;
  /** The content of the drawing as it is saved to a file. */
  content(): Promise<string>;
}
