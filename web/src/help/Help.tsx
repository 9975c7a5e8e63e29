import { Fragment, useEffect, useState } from "react";
import { useLocation } from "react-router";
import {
  HANDLE_TOOLS,
  bankPlaces,
  REGISTRY,
  BANK_KEYS,
  BANKS,
  type Action,
  type Registered,
  type Tool,
} from "@ash-edge/tools";
import { Page } from "../app/Page.tsx";
import { ToolDrawing } from "../bench/ToolDrawing.tsx";
import { DrawTheExample } from "./DrawTheExample.tsx";
import { sentenceOf } from "./sentenceOf.ts";
import { ToolPicture } from "./ToolPicture.tsx";

const WAY = [
  [
    "Sketch",
    "The sketch comes in and stays beside the board. Scale it by a length that is written on it (B, then W); " +
      "straighten a photo by four corners (B R). Write its numbers down once in the ledger: 26 d bore, Enter, " +
      "the next.",
  ],
  [
    "Lay out",
    "Click a callout, then draw the layout at that distance: parallels (Q Q), layout circles, lines at an angle. " +
      "Their crossings are the points that everything hangs on.",
  ],
  [
    "Shape",
    "Circles, lines and tangents on those points. What the next click would make is always drawn first. Then " +
      "trim what is too much, clear the layout, and join what meets into one contour.",
  ],
  [
    "Release",
    "The ledger says which numbers are true. Release sorts contours by nesting, says what stands against " +
      "cutting, writes the file, has it read back by another reader, and keeps it with the job.",
  ],
] as const;

/** How it is typed and clicked, whatever the tool: the key or the text, and what it does. */
const KEYS = [
  ["26d, 1-3/16", "A number goes into the lit blank wherever it is typed, and is held: no click can change it."],
  ["80;30", "A point by x and y from the datum. @12<45 is so far from the last point, at an angle."],
  ["Tab", "On to the next blank or point, with Shift to the one before; a point’s x and y are blanks of their own."],
  ["Enter", "Holds what is typed. With all of it typed it makes the piece; with no tool it takes the last one again."],
  ["Backspace", "Takes back the last pick or piece of what is being drawn. Delete empties the lit blank."],
  ["B A", "Puts the datum on any snap: x and y are counted from there."],
  [
    "two keys",
    "Take a tool: its bank by its place under the left hand, then its own. The bank’s key again takes its first.",
  ],
  ["Ctrl K", "Finds a tool by its name."],
  ["Space", "The next solution, or the next snap under the pointer."],
  ["Esc", "Steps back: from a pick, from the tool, from what is selected."],
  ["Shift, Alt", "Held: Shift keeps the direction, Alt lets go of snaps."],
  ["Ctrl click", "Takes the radius, length or angle of what is clicked into the blank."],
  ["arrows", "Move a cursor over the board without a mouse, finer with Shift, coarser with Ctrl; Enter clicks there."],
  ["Page Down", "Goes to what is near, nearest first, and says it. Ctrl Enter ends the run, + and − zoom."],
] as const;

/** What each tool needs and what it makes, and a way through a job. */
export const Help = () => {
  const [text, setText] = useState("");
  const { hash } = useLocation();
  useEffect(() => {
    // the browser looked for the tool's place before this page was there
    if (hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView({ block: "center" });
  }, [hash]);
  const wanted = (one: Registered): boolean =>
    `${one.name} ${BANKS[one.bank]} ${one.help}`.toLowerCase().includes(text.trim().toLowerCase());
  const handles = HANDLE_TOOLS.filter((tool) =>
    `handles ${tool.name} ${tool.help}`.toLowerCase().includes(text.trim().toLowerCase()),
  );
  const banks = BANK_KEYS.filter((bank) => REGISTRY.some((one) => one.bank === bank && wanted(one)));
  return (
    <Page title="Help">
      <div className="mx-auto max-w-5xl">
        <div className="flex items-center justify-between gap-3">
          <h1 className="text-lg font-semibold">Help</h1>
          <DrawTheExample />
        </div>
        <section className="card mt-3 p-4" aria-label="Everywhere">
          <dl className="grid grid-cols-[auto_1fr_auto_1fr] items-baseline gap-x-4 gap-y-1.5">
            {KEYS.map(([key, words]) => (
              <Fragment key={key}>
                <dt className="figures font-semibold whitespace-nowrap">{key}</dt>
                <dd className="text-soft">{words}</dd>
              </Fragment>
            ))}
          </dl>
        </section>
        <ol className="card mt-3 grid grid-cols-4 gap-5 p-4" aria-label="The way through a job">
          {WAY.map(([step, words], i) => (
            <li key={step}>
              <b className="text-ember">
                {i + 1} · {step}
              </b>
              <p className="mt-1 text-soft">{words}</p>
            </li>
          ))}
        </ol>
        <input
          aria-label="Search the help"
          placeholder="Search the tools"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="mt-4 h-9 w-80 rounded-card border border-hair bg-panel px-3 placeholder:text-soft"
        />
        {banks.length + handles.length === 0 && <p className="mt-4 text-soft">No tool speaks of that.</p>}
        {banks.map((bank) => (
          <section key={bank} aria-label={BANKS[bank]} className="mt-5">
            <h2 className="font-semibold">
              {BANKS[bank]} <span className="figures ml-1 text-xs text-soft">{bank.slice(3)}</span>
            </h2>
            <Cards
              all={[...bankPlaces(bank)]
                .map(([key, one]) => [one, `${bank.slice(3)} ${key.slice(3)}`] as const)
                .filter(([one]) => wanted(one))}
            />
          </section>
        ))}
        {handles.length > 0 && (
          <section aria-label="Handles" className="mt-5">
            <h2 className="font-semibold">Handles</h2>
            <p className="mt-1 text-soft">
              Small discs on what is selected. Pull one, or click it for everything that it offers; Selected lists them
              for the keyboard. Handles shown (G, then A) puts them away.
            </p>
            <Cards all={handles.map((tool) => [tool, ""] as const)} />
          </section>
        )}
      </div>
    </Page>
  );
};

const Cards = ({ all }: { all: readonly (readonly [one: Tool | Action, keys: string])[] }) => (
  <ul className="mt-2 grid grid-cols-2 gap-3">
    {all.map(([one, keys]) => (
      <li key={one.id} id={one.id} className="card flex gap-4 p-3">
        <div className="min-w-0 flex-1">
          <h3 className="flex items-center gap-2 font-semibold">
            <ToolDrawing drawing={one.drawing} size={20} />
            {one.name}
            <span className="figures text-xs text-soft">{keys}</span>
          </h3>
          {one.kind === "tool" && <p className="said mt-1 text-ember">{sentenceOf(one)}</p>}
          <p className="mt-1 text-soft">{one.help}</p>
        </div>
        {one.kind === "tool" && <ToolPicture tool={one} className="h-24 w-36 shrink-0 self-center" />}
      </li>
    ))}
  </ul>
);
