/** How the items of menus look, wherever they open. */
export const MENU_ITEM =
  "flex h-7 cursor-default items-center gap-2 rounded-card px-2.5 outline-none select-none " +
  "data-[highlighted]:bg-ember-wash data-[disabled]:text-soft";
export const MENU = "card z-40 min-w-52 p-1";
