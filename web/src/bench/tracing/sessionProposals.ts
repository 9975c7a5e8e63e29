import { fromPicture, ontoPicture, type Picture } from "@ash-edge/core/drawing";
import { curveBounds, distance, type Bounds, type Point } from "@ash-edge/core/geometry";
import { boxTakes } from "@ash-edge/core/look";
import { refuse, type Outcome } from "@ash-edge/core/numeric";
import {
  asKind,
  breakMoved,
  breaksOf,
  letGo,
  mergedInto,
  placedShape,
  splitAt,
  toCorner,
  toTouch,
  type EndOf,
  type Group,
  type Hold,
  type Kind,
  type Proposal,
  type Proposals,
} from "@ash-edge/core/picture/trace";
import { toDrawing, toScreen } from "../board/view.ts";
import type { SessionCore } from "../sessionCore.ts";
import { freshProposal, proposedIn, tracedPicture, withProposed, type Tracing } from "../state/index.ts";

/** A press on a place where two meet takes it, this near, px. */
const GRIP = 8;

/** What is proposed of a picture, changed by hand before it is accepted. */
export const makeProposals = ({ get, send, sayNo }: SessionCore) => {
  const open = ():
    { readonly tracing: Tracing; readonly picture: Picture; readonly proposed: Proposals } | undefined => {
    const { tracing, history } = get();
    const picture = tracing?.found && tracedPicture(tracing, history.drawing);
    return picture && { tracing, picture, proposed: proposedIn(tracing, history) };
  };
  const put = (proposed: Proposals, picked: readonly number[] = []): void => {
    const { tracing, history } = get();
    if (!tracing) return;
    const proposals = withProposed(tracing, history, proposed);
    send("tracing", { type: "changed", proposals, picked, step: history.steps.position });
  };
  /** Does something with what is picked; what can't be done is said, and nothing changes. */
  const change = (work: (proposed: Proposals, picked: readonly number[]) => Outcome<Proposals>): void => {
    const now = open();
    if (!now) return sayNo(refuse("picture-gone").refusal);
    const made = work(now.proposed, now.tracing.picked);
    if (!made.ok) return sayNo(made.refusal);
    const left = new Set(made.value.map(({ id }) => id));
    put(
      made.value,
      now.tracing.picked.filter((id) => left.has(id)),
    );
  };
  const takeBack = (): void => send("tracing", { type: "taken back" });
  /** The place where two meet under a place on the screen, of those that are shown. */
  const breakAt = (at: Point): EndOf | undefined => {
    const now = open();
    if (!now) return undefined;
    const { view } = get();
    const shown = now.proposed.filter(({ group }) => now.tracing.shown.has(group));
    return breaksOf(shown).find((one) => distance(toScreen(view.now, fromPicture(now.picture, one.at)), at) <= GRIP);
  };

  return {
    tracedAs: (kind: Kind): void => change((all, [id]) => asKind(all, id!, kind)),
    letGoTraced: (id: number, hold: Hold): void => change((all) => letGo(all, id, hold)),
    mergeTraced: (): void => change((all, [one, other]) => mergedInto(all, one!, other!)),
    cornerTraced: (): void => change((all, [one, other]) => toCorner(all, one!, other!)),
    touchTraced: (): void => change((all, [one, other]) => toTouch(all, one!, other!)),
    splitTraced: (on: boolean): void => send("tracing", { type: "splitting", on }),
    rejectTraced: (ids: readonly number[]): void => {
      const now = open();
      if (now) put(now.proposed.filter(({ id }) => !ids.includes(id)));
    },
    moveTraced: (ids: readonly number[], group: Group): void => {
      const now = open();
      if (now) put(now.proposed.map((one) => (ids.includes(one.id) ? { ...one, group } : one)));
    },
    takeBackTraced: takeBack,
    /** Undo takes back what was changed here since the drawing's last step; false where nothing was. */
    undoTraced: (): boolean => {
      const { tracing, history } = get();
      if (tracing?.before.at(-1)?.step !== history.steps.position) return false;
      takeBack();
      return true;
    },
    /** A click on the board while one is to be split; false where none is. */
    splitHere: (screen: Point): boolean => {
      const now = open();
      if (!now?.tracing.splitting) return false;
      const at = ontoPicture(now.picture, toDrawing(get().view.now, screen));
      change((all, [id]) => splitAt(all, id!, at, freshProposal(now.tracing)));
      return true;
    },
    /** The left button on a place where two meet takes it; true where there is one. */
    pressBreak: (screen: Point): boolean => {
      const own = get().hand.toolId || get().tracing?.splitting ? undefined : breakAt(screen);
      if (own) send("tracing", { type: "pulled", pulled: { ...own, to: own.at } });
      return own !== undefined;
    },
    pullBreak: (screen: Point | undefined): void => {
      const now = open();
      const pulled = now?.tracing.pulled;
      if (!pulled || !screen) return;
      const to = ontoPicture(now.picture, toDrawing(get().view.now, screen));
      send("tracing", { type: "pulled", pulled: { ...pulled, to } });
    },
    /** Let go: the two meet there; true where one was pulled. */
    dropBreak: (): boolean => {
      const pulled = get().tracing?.pulled;
      if (!pulled) return false;
      send("tracing", { type: "pulled", pulled: undefined });
      if (distance(pulled.at, pulled.to) > 0) change((all) => breakMoved(all, pulled.id, pulled.end, pulled.to));
      return true;
    },
    /** A box on the board picks what lies in it; false where nothing does. */
    pickTracedIn: (around: Bounds, how: "encloses" | "touches", more: boolean): boolean => {
      const now = open();
      if (!now) return false;
      const takes = boxTakes(around, how);
      const isIn = ({ shape }: Proposal): boolean => {
        const placed = placedShape(now.picture, shape);
        return takes(curveBounds(placed), [placed]);
      };
      const found = now.proposed.filter((one) => now.tracing.shown.has(one.group) && isIn(one)).map(({ id }) => id);
      if (found.length === 0) return false;
      send("tracing", { type: "picked", ids: [...new Set([...(more ? now.tracing.picked : []), ...found])] });
      return true;
    },
  };
};
