import type { Id } from "../numeric/id.ts";

/**
 * An immutable table by id, in copy-on-write pages: changing one of 100 000 rows copies one page and the list of pages,
 * not the whole table. Ids rise and are never reused, so pages stay dense enough.
 */
export type Pages<T> = { readonly size: number; readonly pages: readonly (readonly (T | undefined)[] | undefined)[] };

const SHIFT = 8;
const WITHIN = (1 << SHIFT) - 1;

const NO_PAGES: Pages<never> = { size: 0, pages: [] };
/** A table without rows. */
export const emptyPages = <T>(): Pages<T> => NO_PAGES;

/** The row of that id; undefined where there is none. */
export const pageGet = <T>(table: Pages<T>, id: Id): T | undefined => table.pages[id >> SHIFT]?.[id & WITHIN];

/** `table` with rows set, or taken out where the new row is undefined. Untouched pages keep their reference. */
export const pagesWith = <T>(table: Pages<T>, rows: readonly (readonly [Id, T | undefined])[]): Pages<T> => {
  if (rows.length === 0) return table;
  const pages = table.pages.slice();
  const copied = new Map<number, (T | undefined)[]>();
  let size = table.size;
  for (const [id, row] of rows) {
    const number = id >> SHIFT;
    let page = copied.get(number);
    if (!page) {
      page = pages[number]?.slice() ?? [];
      copied.set(number, page);
      while (pages.length < number) pages.push(undefined);
      pages[number] = page;
    }
    const place = id & WITHIN;
    if (page[place] !== undefined) size -= 1;
    if (row !== undefined) size += 1;
    while (page.length < place) page.push(undefined);
    page[place] = row;
  }
  return { size, pages };
};

/** The rows in the order of their ids. */
export function* pageRows<T>(table: Pages<T>): Generator<T> {
  for (const page of table.pages) if (page) for (const row of page) if (row !== undefined) yield row;
}

/** The rows that differ between two tables, found by comparing pages by reference first. */
export function* pageChanges<T>(
  before: Pages<T>,
  after: Pages<T>,
): Generator<readonly [before: T | undefined, after: T | undefined]> {
  for (let number = 0; number < Math.max(before.pages.length, after.pages.length); number++) {
    const [old, now] = [before.pages[number], after.pages[number]];
    if (old === now) continue;
    for (let place = 0; place <= WITHIN; place++) if (old?.[place] !== now?.[place]) yield [old?.[place], now?.[place]];
  }
}
