import { commonPart } from "./areas/commonPart.ts";
import { cutterAllowance } from "./areas/cutterAllowance.ts";
import { giveWidth } from "./areas/giveWidth.ts";
import { keepAreas } from "./areas/keepAreas.ts";
import { offset } from "./areas/offset.ts";
import { takeAway } from "./areas/takeAway.ts";
import { unite } from "./areas/unite.ts";
import { wideOutline } from "./areas/wideOutline.ts";
import { arcFit } from "./chains/arcFit.ts";
import { bow } from "./chains/bow.ts";
import { fitToPoints } from "./chains/fitToPoints.ts";
import { handlesAction } from "./chains/handles.ts";
import { join } from "./chains/join.ts";
import { openClose } from "./chains/openClose.ts";
import { slideAJoint } from "./chains/slideAJoint.ts";
import { smooth } from "./chains/smooth.ts";
import { startPoint } from "./chains/startPoint.ts";
import { straighten } from "./chains/straighten.ts";
import { takeApart } from "./chains/takeApart.ts";
import { toStraight } from "./chains/toStraight.ts";
import { align } from "./copies/align.ts";
import { copy } from "./copies/copy.ts";
import { mirror } from "./copies/mirror.ts";
import { move } from "./copies/move.ts";
import { rotate } from "./copies/rotate.ts";
import { roundACentre } from "./copies/roundACentre.ts";
import { rows } from "./copies/rows.ts";
import { scale } from "./copies/scale.ts";
import { chamfer } from "./corners/chamfer.ts";
import { changeFillet } from "./corners/changeFillet.ts";
import { cornerRelief } from "./corners/cornerRelief.ts";
import { fillet } from "./corners/fillet.ts";
import { meet } from "./corners/meet.ts";
import { sharpen } from "./corners/sharpen.ts";
import { extend } from "./cut/extend.ts";
import { split } from "./cut/split.ts";
import { splitCrossings } from "./cut/splitCrossings.ts";
import { toOneLine } from "./cut/toOneLine.ts";
import { trim } from "./cut/trim.ts";
import { freeCurve } from "./draw/freeCurve.ts";
import { freePointsTool } from "./draw/freePoints.ts";
import { line } from "./draw/line.ts";
import { lineAtAnAngle } from "./draw/lineAtAnAngle.ts";
import { outline } from "./draw/outline.ts";
import { parallelLine } from "./draw/parallelLine.ts";
import { perpendicular } from "./draw/perpendicular.ts";
import { shortest } from "./draw/shortest.ts";
import { addCornerTool } from "./handles/addCorner.ts";
import { lengthenTool } from "./handles/lengthen.ts";
import { radiusOfCircle } from "./handles/radiusOfCircle.ts";
import { removeCornerTool } from "./handles/removeCorner.ts";
import { shiftTool } from "./handles/shift.ts";
import { stretchTool } from "./handles/stretch.ts";
import { dimensionAllAction } from "./dimensions/actions.ts";
import { angleDimension } from "./dimensions/angleDimension.ts";
import { arcLength } from "./dimensions/arcLength.ts";
import { centreLine } from "./dimensions/centreLine.ts";
import { centreMark } from "./dimensions/centreMark.ts";
import { dimension } from "./dimensions/dimension.ts";
import { dimensionCalled } from "./dimensions/dimensionCalled.ts";
import { ANNOTATION_HANDLE_TOOLS } from "./dimensions/handles.ts";
import { note } from "./dimensions/note.ts";
import { ordinate } from "./dimensions/ordinate.ts";
import { run } from "./dimensions/run.ts";
import { sizeDimension } from "./dimensions/sizeDimension.ts";
import { threadMarkTool } from "./dimensions/threadMark.ts";
import { boltCircle } from "./holes/boltCircle.ts";
import { clearanceHole } from "./holes/clearanceHole.ts";
import { hole } from "./holes/hole.ts";
import { holeGrid } from "./holes/holeGrid.ts";
import { tappedHole } from "./holes/tappedHole.ts";
import { holdActions } from "./job/hold.ts";
import { levelThePicture } from "./job/levelThePicture.ts";
import { markThePlan } from "./job/markThePlan.ts";
import { placeThePicture } from "./job/placeThePicture.ts";
import { releaseAction } from "./job/release.ts";
import { scaleThePicture } from "./job/scaleThePicture.ts";
import { setDatum } from "./job/setDatum.ts";
import { straightenThePicture } from "./job/straightenThePicture.ts";
import { makeTrueAction } from "./measure/makeTrue.ts";
import { tidyAction } from "./job/tidy.ts";
import { traceThePictureAction } from "./job/traceThePicture.ts";
import { toLayer } from "./job/toLayer.ts";
import { writeCalloutsAction } from "./job/writeCallouts.ts";
import { atAnAngle } from "./layout/atAnAngle.ts";
import { bisector } from "./layout/bisector.ts";
import { clearLayoutAction } from "./layout/clearLayout.ts";
import { divide } from "./layout/divide.ts";
import { layoutCircle } from "./layout/layoutCircle.ts";
import { layoutLine } from "./layout/layoutLine.ts";
import { layoutToCut } from "./layout/layoutToCut.ts";
import { parallel } from "./layout/parallel.ts";
import { point } from "./layout/point.ts";
import { squareTo } from "./layout/squareTo.ts";
import { throughTwoPoints } from "./layout/throughTwoPoints.ts";
import { angleTool } from "./measure/angle.ts";
import { areaTool } from "./measure/area.ts";
import { distanceTool } from "./measure/distance.ts";
import { measureOnPicture } from "./measure/measureOnPicture.ts";
import { radiusTool } from "./measure/radius.ts";
import { arcByCentre } from "./round/arcByCentre.ts";
import { arcByEnds } from "./round/arcByEnds.ts";
import { arcByThreePoints } from "./round/arcByThreePoints.ts";
import { arcOnFromAnEnd } from "./round/arcOnFromAnEnd.ts";
import { circle } from "./round/circle.ts";
import { circleByThreePoints } from "./round/circleByThreePoints.ts";
import { circleByTwoPoints } from "./round/circleByTwoPoints.ts";
import { circleTouchingThree } from "./round/circleTouchingThree.ts";
import { circleTouchingTwo } from "./round/circleTouchingTwo.ts";
import { ellipse } from "./round/ellipse.ts";
import { arcSlot } from "./shapes/arcSlot.ts";
import { polygon } from "./shapes/polygon.ts";
import { rectangle } from "./shapes/rectangle.ts";
import { ring } from "./shapes/ring.ts";
import { slot } from "./shapes/slot.ts";
import { tangentArc } from "./tangent/tangentArc.ts";
import { tangentAtAnAngle } from "./tangent/tangentAtAnAngle.ts";
import { tangentFromATouchPoint } from "./tangent/tangentFromATouchPoint.ts";
import { tangentLine } from "./tangent/tangentLine.ts";
import { BANK_KEYS, type Tool, type Action, type BankKey } from "./tool.ts";
import { dimensionsShownAction } from "./view/dimensionsShown.ts";
import { fitAction } from "./view/fit.ts";
import { fitSelectionAction } from "./view/fitSelection.ts";
import { layersAction } from "./view/layers.ts";
import { magnifierAction } from "./view/magnifier.ts";
import { signsAction } from "./view/signs.ts";
import { snapOnceActions } from "./view/snapOnce.ts";
import { viewBeforeAction } from "./view/viewBefore.ts";

/**
 * Every tool and action by the two keys that take it: its bank's, then its own. The key is written here, so that a new
 * tool moves nobody else's. The bank's own key again takes its first tool.
 */
const KEYS: Readonly<Record<BankKey, Readonly<Partial<Record<BankKey, Tool | Action>>>>> = {
  KeyQ: {
    KeyQ: parallel,
    KeyW: throughTwoPoints,
    KeyE: atAnAngle,
    KeyR: squareTo,
    KeyT: bisector,
    KeyA: layoutLine,
    KeyS: layoutCircle,
    KeyD: point,
    KeyF: divide,
    KeyG: layoutToCut,
    KeyZ: clearLayoutAction,
  },
  KeyW: {
    KeyW: outline,
    KeyQ: line,
    KeyE: lineAtAnAngle,
    KeyR: perpendicular,
    KeyT: parallelLine,
    KeyA: shortest,
    KeyS: freeCurve,
    KeyD: freePointsTool,
  },
  KeyE: {
    KeyE: circle,
    KeyQ: circleByTwoPoints,
    KeyW: circleByThreePoints,
    KeyR: circleTouchingTwo,
    KeyT: circleTouchingThree,
    KeyA: arcByThreePoints,
    KeyS: arcByCentre,
    KeyD: arcByEnds,
    KeyF: arcOnFromAnEnd,
    KeyG: ellipse,
  },
  KeyR: { KeyR: tangentLine, KeyQ: tangentArc, KeyW: tangentAtAnAngle, KeyE: tangentFromATouchPoint },
  KeyT: { KeyT: rectangle, KeyQ: polygon, KeyW: slot, KeyE: arcSlot, KeyR: ring },
  KeyA: { KeyA: trim, KeyQ: extend, KeyW: toOneLine, KeyE: split, KeyR: splitCrossings },
  KeyS: { KeyS: fillet, KeyQ: chamfer, KeyW: meet, KeyE: cornerRelief, KeyR: changeFillet, KeyT: sharpen },
  KeyD: {
    KeyD: move,
    KeyQ: copy,
    KeyW: rotate,
    KeyE: scale,
    KeyR: mirror,
    KeyT: align,
    KeyA: rows,
    KeyS: roundACentre,
  },
  KeyF: {
    KeyF: offset,
    KeyQ: keepAreas,
    KeyW: unite,
    KeyE: takeAway,
    KeyR: commonPart,
    KeyT: giveWidth,
    KeyA: wideOutline,
    KeyS: cutterAllowance,
  },
  KeyG: {
    KeyG: join,
    KeyQ: takeApart,
    KeyW: startPoint,
    KeyE: openClose,
    KeyR: bow,
    KeyT: straighten,
    KeyA: handlesAction,
    KeyS: smooth,
    KeyD: toStraight,
    KeyF: arcFit,
    KeyZ: fitToPoints,
    KeyX: slideAJoint,
    KeyC: tidyAction,
  },
  KeyZ: {
    KeyZ: dimension,
    KeyQ: angleDimension,
    KeyW: sizeDimension,
    KeyE: arcLength,
    KeyR: ordinate,
    KeyT: run,
    KeyA: note,
    KeyS: centreMark,
    KeyD: centreLine,
    KeyF: threadMarkTool,
    KeyG: dimensionAllAction,
    KeyX: dimensionsShownAction,
  },
  KeyX: { KeyX: hole, KeyQ: tappedHole, KeyW: clearanceHole, KeyE: boltCircle, KeyR: holeGrid },
  KeyC: {
    KeyC: distanceTool,
    KeyQ: angleTool,
    KeyW: radiusTool,
    KeyE: areaTool,
    KeyR: measureOnPicture,
    KeyT: makeTrueAction,
  },
  KeyV: {
    KeyV: fitAction,
    KeyQ: fitSelectionAction,
    KeyW: viewBeforeAction,
    KeyE: magnifierAction,
    KeyR: layersAction,
    KeyT: signsAction,
    KeyA: snapOnceActions[0]!,
    KeyS: snapOnceActions[1]!,
    KeyD: snapOnceActions[2]!,
    KeyF: snapOnceActions[3]!,
    KeyG: snapOnceActions[4]!,
    KeyZ: snapOnceActions[5]!,
    KeyX: snapOnceActions[6]!,
    KeyC: snapOnceActions[7]!,
    KeyB: snapOnceActions[8]!,
  },
  KeyB: {
    KeyB: writeCalloutsAction,
    KeyQ: toLayer,
    KeyW: scaleThePicture,
    KeyE: levelThePicture,
    KeyR: straightenThePicture,
    KeyT: placeThePicture,
    KeyA: setDatum,
    KeyS: holdActions[0]!,
    KeyD: holdActions[1]!,
    KeyF: holdActions[2]!,
    KeyG: holdActions[3]!,
    KeyZ: holdActions[4]!,
    KeyX: releaseAction,
    KeyC: traceThePictureAction,
    KeyV: markThePlan,
  },
};

/** A tool or an action with the keys that take it. */
export type Registered = (Tool | Action) & { readonly bank: BankKey; readonly place: BankKey };

/**
 * Every tool and action, bank by bank, the bank's first tool first, the rest in reading order: the key grid, the finder
 * and help are made from this.
 */
export const REGISTRY: readonly Registered[] = BANK_KEYS.flatMap((bank) =>
  [bank, ...BANK_KEYS.filter((key) => key !== bank)].flatMap((place): readonly Registered[] => {
    const found = KEYS[bank][place];
    return found ? [{ ...found, bank, place }] : [];
  }),
);

/** Tools that only handles, and rows of the ledger, offer, without keys. */
export const HANDLE_TOOLS: readonly Tool[] = [
  stretchTool,
  lengthenTool,
  shiftTool,
  addCornerTool,
  removeCornerTool,
  radiusOfCircle,
  ...ANNOTATION_HANDLE_TOOLS,
  dimensionCalled,
];

/** The tool of that id, also one that only handles offer. */
export const toolById = (id: string | undefined): Tool | undefined => {
  const found = REGISTRY.find((one) => one.id === id) ?? HANDLE_TOOLS.find((one) => one.id === id);
  return found?.kind === "tool" ? found : undefined;
};

/** What stands on each key once a bank is taken. */
export const bankPlaces = (bank: BankKey): ReadonlyMap<BankKey, Registered> =>
  new Map(REGISTRY.filter((one) => one.bank === bank).map((one) => [one.place, one]));
