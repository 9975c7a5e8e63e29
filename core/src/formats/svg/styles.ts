import parse, { type Css } from "css-tree/parser";
import type { INode } from "svgson";

/** A simple selector of one element: its type, classes, id and attributes, all of which must be so. */
type Compound = {
  readonly tests: readonly ((node: INode) => boolean)[];
  /** How it hangs together with the one before it: anywhere above, or right above. */
  readonly combinator: " " | ">";
};
type Rule = {
  readonly selector: readonly Compound[];
  readonly weight: number;
  readonly declared: Readonly<Record<string, string>>;
  readonly important: Readonly<Record<string, string>>;
};

/** What elements are told by style sheets and by themselves. */
export type Styles = {
  /** The value of a property for an element below others: `style`, then the sheets, then the attribute of that name. */
  readonly valueOf: (property: string, node: INode, above: readonly INode[]) => string | undefined;
};

/** The declarations of a block, those marked important apart. */
const declarations = (
  children: Iterable<Css>,
  text: (value: unknown) => string,
): readonly [Record<string, string>, Record<string, string>] => {
  const [own, important]: [Record<string, string>, Record<string, string>] = [{}, {}];
  for (const one of children)
    if (one.type === "Declaration" && one.property)
      (one.important ? important : own)[one.property.toLowerCase()] = text(one.value).trim();
  return [own, important];
};

/** Values are kept as they stand: only keywords and transforms are asked for. */
const raw = (value: unknown): string => {
  const css = value as Css | undefined;
  return css?.type === "Raw" ? String(css.value) : "";
};

/** Rules of the cascade (CSS 2.2, 6.4.3): ids, then classes and attributes, then types. */
const [ID, CLASS, TYPE] = [10_000, 100, 1];

const classesOf = ({ attributes }: INode): readonly string[] => (attributes.class ?? "").split(/\s+/);

const testOf = (part: Css): { readonly test: (node: INode) => boolean; readonly weight: number } | undefined => {
  const name = part.name ?? "";
  switch (part.type) {
    case "TypeSelector":
      return { test: (node) => name === "*" || node.name === name, weight: name === "*" ? 0 : TYPE };
    case "ClassSelector":
      return { test: (node) => classesOf(node).includes(name), weight: CLASS };
    case "IdSelector":
      return { test: (node) => node.attributes.id === name, weight: ID };
    default:
      return undefined; // states of a page, which a file has none of
  }
};

/** A selector as compounds, the last one for the element itself; undefined where it asks for what is not known here. */
const selectorOf = (selector: Css): { readonly selector: readonly Compound[]; readonly weight: number } | undefined => {
  const all: { tests: ((node: INode) => boolean)[]; combinator: " " | ">" }[] = [{ tests: [], combinator: " " }];
  let weight = 0;
  for (const part of selector.children ?? []) {
    if (part.type === "Combinator") {
      if (part.name !== " " && part.name !== ">") return undefined;
      all.push({ tests: [], combinator: part.name });
      continue;
    }
    const found = testOf(part);
    if (!found) return undefined;
    all.at(-1)!.tests.push(found.test);
    weight += found.weight;
  }
  return { selector: all, weight };
};

const matches = (selector: readonly Compound[], node: INode, above: readonly INode[]): boolean => {
  const last = selector.at(-1)!;
  if (!last.tests.every((test) => test(node))) return false;
  const rest = selector.slice(0, -1);
  if (rest.length === 0) return true;
  const from = last.combinator === ">" ? above.length - 1 : 0;
  for (let i = above.length - 1; i >= Math.max(0, from); i--)
    if (matches(rest, above[i]!, above.slice(0, i))) return true;
  return false;
};

const rulesOf = (sheet: string): readonly Rule[] => {
  const rules: Rule[] = [];
  const take = (children: Iterable<Css>): void => {
    for (const rule of children) {
      // rules for every medium, or for a screen; those for print, or for pages of some size, are not for a drawing
      if (rule.type === "Atrule" && rule.name === "media" && rule.block && EVERYWHERE.test(raw(rule.prelude)))
        take(rule.block.children);
      if (rule.type !== "Rule" || !rule.block) continue;
      const [declared, important] = declarations(rule.block.children, raw);
      for (const one of rule.prelude?.children ?? []) {
        const found = selectorOf(one);
        if (found) rules.push({ ...found, declared, important });
      }
    }
  };
  take(parse(sheet, { context: "stylesheet", ...RAW }).children ?? []);
  return rules;
};

/** Values and the conditions of media need not be taken apart. */
const RAW = { parseValue: false, parseAtrulePrelude: false } as const;
const EVERYWHERE = /^\s*(?:(?:only\s+)?(?:screen|all))?\s*$/i;

const sheetsIn = (node: INode): readonly string[] => {
  if (node.name === "style") return [node.children.map(({ value }) => value).join("")];
  return node.children.flatMap(sheetsIn);
};

/** The style sheets of a file, and what they come to for its elements. */
export const stylesOf = (root: INode): Styles => {
  const rules = sheetsIn(root)
    .flatMap((sheet) => rulesOf(sheet.replace(/^\s*<!\[CDATA\[|\]\]>\s*$/g, "")))
    // of rules of one weight the later one counts
    .sort((p, q) => p.weight - q.weight);
  const ownStyles = new Map<INode, readonly [Record<string, string>, Record<string, string>]>();
  const ownStyle = (node: INode): readonly [Record<string, string>, Record<string, string>] => {
    const { style } = node.attributes;
    if (!style) return [{}, {}];
    const known =
      ownStyles.get(node) ?? declarations(parse(style, { context: "declarationList", ...RAW }).children ?? [], raw);
    ownStyles.set(node, known);
    return known;
  };
  return {
    valueOf: (property, node, above) => {
      const [own, ownImportant] = ownStyle(node);
      const matching = rules.filter(
        ({ declared, important, selector }) =>
          (property in declared || property in important) && matches(selector, node, above),
      );
      const last = (among: "declared" | "important"): string | undefined =>
        matching.reduce<string | undefined>((value, rule) => rule[among][property] ?? value, undefined);
      return (
        ownImportant[property] ?? last("important") ?? own[property] ?? last("declared") ?? node.attributes[property]
      );
    },
  };
};
