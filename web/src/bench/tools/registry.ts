import {
  clearLayoutAction,
  fitAction,
  fitSelectionAction,
  holdActions,
  layersAction,
  magnifierAction,
  marksAction,
  handlesAction,
  releaseAction,
  snapOnceActions,
  tidyAction,
  viewBeforeAction,
  writeCalloutsAction,
} from "./actions.ts";
import { cutterAllowance } from "./allowanceTool.ts";
import { commonPart, keepAreas, takeAway, unite } from "./areaTools.ts";
import { bow, straighten } from "./bendTools.ts";
import { openClose, startPoint, takeApart } from "./chainTools.ts";
import { circle, layoutCircle } from "./circle.ts";
import { align, copy, mirror, rotate, roundACentre, rows, scale } from "./copyTools.ts";
import { chamfer, changeFillet, cornerRelief, fillet, meet, sharpen } from "./cornerTools.ts";
import { distanceTool } from "./distanceTool.ts";
import { freeCurve, lineAtAnAngle, parallelLine, perpendicular, shortest } from "./drawLineTools.ts";
import { extend, split, splitCrossings, toOneLine } from "./extendTools.ts";
import { arcFit, fitToPoints, slideAJoint, smooth, toStraight } from "./fitTools.ts";
import { freePointsTool } from "./freePointsTool.ts";
import { giveWidth } from "./giveWidth.ts";
import { HANDLE_TOOLS } from "./handleTools.ts";
import { boltCircle, clearanceHole, hole, holeGrid, tappedHole } from "./holeTools.ts";
import { join } from "./join.ts";
import { atAnAngle, bisector, divide, layoutLine, layoutToCut, squareTo, throughTwoPoints } from "./layoutLineTools.ts";
import { line } from "./line.ts";
import { angleTool, areaTool, radiusTool } from "./measureTools.ts";
import { move } from "./move.ts";
import { offset } from "./offset.ts";
import { outline } from "./outline.ts";
import { parallel } from "./parallel.ts";
import {
  levelThePicture,
  measureOnPicture,
  placeThePicture,
  scaleThePicture,
  straightenThePicture,
} from "./pictureTools.ts";
import { point } from "./point.ts";
import { rectangle } from "./rectangle.ts";
import {
  arcByCentre,
  arcByEnds,
  arcByThreePoints,
  arcOnFromAnEnd,
  circleByThreePoints,
  circleByTwoPoints,
  circleTouchingThree,
  circleTouchingTwo,
  ellipse,
} from "./roundTools.ts";
import { setDatum } from "./setDatum.ts";
import { arcSlot, polygon, ring, slot } from "./shapeTools.ts";
import { tangentArc } from "./tangentArc.ts";
import { tangentAtAnAngle, tangentFromATouchPoint, tangentLine } from "./tangentLine.ts";
import { toLayer } from "./toLayer.ts";
import { BANK_KEYS, type Action, type BankKey, type Tool } from "./tool.ts";
import { trim } from "./trim.ts";
import { wideOutline } from "./wideOutline.ts";

/** Every tool and action, in the order of its bank: the key grid, the finder and the help are made from this list. */
export const REGISTRY: readonly (Tool | Action)[] = [
  parallel,
  throughTwoPoints,
  atAnAngle,
  squareTo,
  bisector,
  layoutLine,
  layoutCircle,
  point,
  divide,
  layoutToCut,
  clearLayoutAction,
  outline,
  line,
  lineAtAnAngle,
  perpendicular,
  parallelLine,
  shortest,
  freeCurve,
  freePointsTool,
  circle,
  circleByTwoPoints,
  circleByThreePoints,
  circleTouchingTwo,
  circleTouchingThree,
  arcByThreePoints,
  arcByCentre,
  arcByEnds,
  arcOnFromAnEnd,
  ellipse,
  tangentLine,
  tangentArc,
  tangentAtAnAngle,
  tangentFromATouchPoint,
  rectangle,
  polygon,
  slot,
  arcSlot,
  ring,
  trim,
  extend,
  toOneLine,
  split,
  splitCrossings,
  fillet,
  chamfer,
  meet,
  cornerRelief,
  changeFillet,
  sharpen,
  move,
  copy,
  rotate,
  scale,
  mirror,
  align,
  rows,
  roundACentre,
  offset,
  keepAreas,
  unite,
  takeAway,
  commonPart,
  giveWidth,
  wideOutline,
  cutterAllowance,
  join,
  takeApart,
  startPoint,
  openClose,
  bow,
  straighten,
  handlesAction,
  smooth,
  toStraight,
  arcFit,
  fitToPoints,
  slideAJoint,
  hole,
  tappedHole,
  clearanceHole,
  boltCircle,
  holeGrid,
  distanceTool,
  angleTool,
  radiusTool,
  areaTool,
  measureOnPicture,
  fitAction,
  fitSelectionAction,
  viewBeforeAction,
  magnifierAction,
  layersAction,
  marksAction,
  ...snapOnceActions,
  writeCalloutsAction,
  toLayer,
  scaleThePicture,
  levelThePicture,
  straightenThePicture,
  placeThePicture,
  setDatum,
  ...holdActions,
  releaseAction,
  tidyAction,
];

/** The tool of that id, also one that only handles offer. */
export const toolById = (id: string | undefined): Tool | undefined => {
  const found = REGISTRY.find((one) => one.id === id) ?? HANDLE_TOOLS.find((one) => one.id === id);
  return found?.kind === "tool" ? found : undefined;
};

/** What stands on each key once a bank is taken: its own key has the first, the other places the rest in reading order. */
export const bankPlaces = (bank: BankKey): ReadonlyMap<BankKey, Tool | Action> => {
  const members = REGISTRY.filter((one) => one.bank === bank);
  const keys = [bank, ...BANK_KEYS.filter((key) => key !== bank)];
  return new Map(members.map((member, i) => [keys[i]!, member]));
};
