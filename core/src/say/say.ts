import type { Fault } from "../checks/check.ts";
import { FAULT_SENTENCES } from "../checks/list.ts";
import type { RoleChanges } from "../profile/index.ts";
import type { Refusal, RefusalCode } from "../numeric/outcome.ts";
import { showLengthUnit } from "../numeric/showValue.ts";
import type { Unit } from "../numeric/units.ts";

type Words = (values: Refusal["values"], length: (value: number | string | undefined) => string) => string;

/**
 * A typed size and its limit, as R or as Ø as they were typed; with as many digits as tell them apart where a rounding
 * would show them as one.
 */
const sizes = (
  { typed, limit, kind }: Refusal["values"],
  length: (value: number | string | undefined) => string,
): readonly [string, string] => {
  const [mark, factor] = kind === "Ø" ? ["Ø", 2] : ["R", 1];
  const values = [typed, limit].map((value) => factor * Number(value)) as [number, number];
  const shown = values.map(length) as [string, string];
  // a rounding that shows two numbers as one would contradict itself
  const alike = values[0] !== values[1] && shown[0].replace("≈ ", "") === shown[1].replace("≈ ", "");
  const unit = shown[0].split(" ").at(-1);
  const told = alike ? values.map((value) => `${digits(value)} ${unit}`) : shown;
  return [`${mark} ${told[0]}`, `${mark} ${told[1]}`];
};
/** Twelve digits: what is left of a double after the roundings of a construction. */
const digits = (value: number): string => String(Number(value.toPrecision(12)));

const place = (values: Refusal["values"]): string => `at “${values.found}” (place ${Number(values.place) + 1})`;

/** One sentence for each refusal: what was wrong, and what would be right. */
/** Why a drawing in which a number is true would be no good. */
const SPOILS: Readonly<Record<string, string>> = {
  turned: "A line would turn round.",
  vanished: "A piece would have no length left.",
  "inside-out": "An arc would turn inside out.",
  crosses: "The outline would cross itself or another one.",
  nesting: "A hole would no longer lie where it lies.",
  "no-size": "A circle would have no size.",
};

const SENTENCES: Readonly<Record<RefusalCode, Words>> = {
  "point-unreadable": (values) =>
    `“${values.text}” is no point. Type 80;30 for x and y, or 12<45 for a distance and a direction.`,
  "point-not-wanted": () => "No point is asked for here. Type one number, or go on to what is lit.",
  "pick-wanted": ({ what }) => `Next comes: ${what}. Click it on the board, or type it where it is a point.`,
  "value-empty": () => "Nothing was typed. Type a number, such as 12.5 or 1-3/16.",
  "value-unreadable": (values) =>
    values.found
      ? `“${values.text}” can't be read ${place(values)}. A number such as 12.5, 5/8, 1-3/16 or 10mm works.`
      : `“${values.text}” stops too early. A number such as 12.5, 5/8, 1-3/16 or 10mm works.`,
  "value-two-ways": (values) =>
    `“${values.text}” can be read two ways ${place(values)}. Put blanks round the minus to subtract, or write a ` +
    "proper fraction.",
  "value-asked": (values) => `“${values.text}” can be read two ways: ${values.one} or ${values.other}?`,
  "value-two-kinds": (values) =>
    `“${values.text}” is marked twice as R or Ø. One mark, before or after the number, is enough.`,
  "value-kind-not-here": (values) =>
    `“${values.text}” carries ${values.found}, but this blank is no radius or diameter. Type the number alone.`,
  "value-zero-division": (values) => `“${values.text}” divides by zero. The number under the stroke must not be 0.`,
  "value-not-a-length": (values) =>
    `“${values.text}” does not come out in the unit of this blank. Check ${place(values).slice(3)}.`,
  "list-unreadable": (values) => `“${values.found}” is no number or range; write for example 3, 5-7.`,
  "value-not-a-count": (values) => `“${values.text}” is no whole number of 1 or more.`,
  "value-not-positive": ({ what }) => `${what} must be more than 0.`,
  "value-too-large": (values) => `“${values.text}” is too large. Values up to 1 000 000 000 work.`,
  "point-inside-circle": () =>
    "The point lies inside the circle, so no tangent starts there. Pick a point on the circle or outside it.",
  "circle-inside-circle": () =>
    "One circle lies inside the other, so no line touches both. Pick two that lie apart or cross.",
  "circles-same": () => "Both picks are the same circle. Pick another one.",
  "curves-same": () => "Both picks lie on the same line or circle. Pick another one.",
  "no-tangent": () => "No circle touches both of these. Pick another curve.",
  "touch-beyond-end": () =>
    "It would touch only beyond the end of what is picked. Choose on its circle, or pick another curve.",
  "lines-parallel": () => "The two lines are parallel and never meet.",
  "radius-too-small": (values, length) => {
    const [typed, limit] = sizes(values, length);
    return `${typed} is too small here: ${limit} is the smallest that works.`;
  },
  "radius-too-large": (values, length) => {
    const [typed, limit] = sizes(values, length);
    return `${typed} is too large here: ${limit} is the largest that works.`;
  },
  "radius-between": (values, length) => {
    const [typed, limit] = sizes(values, length);
    const above = sizes({ ...values, limit: values.above! }, length)[1];
    return `${typed} does not fit here: ${limit} does, and so does ${above}.`;
  },
  "ring-no-wall": (values, length) => {
    const [inner, outer] = sizes(values, length);
    return `Between ${inner} inside and ${outer} outside nothing is left of the ring. The inner one must be smaller.`;
  },
  "cutters-none": () => "Nothing is selected that could cut. Select the edges that cut, or let whatever crosses cut.",
  "leave-out-beyond": ({ typed, limit }) =>
    `There is no number ${typed} to leave out: the copies are numbered 2 to ${limit}, 1 is what is selected.`,
  "divide-by-one": () => "One part is all of it as it is. Divide into 2 or more.",
  "cut-too-large": ({ typed, limit }, length) =>
    `A cut of ${length(typed)} is too large here: ${length(limit)} is the largest that works.`,
  "corner-smooth": () => "The edges run on into each other here without a corner. Pick a corner.",
  "corner-outside": () => "This is an outside corner: the cutter reaches it anyway. Pick an inside corner.",
  "no-corner-here": () => "No corner is here. Click where two edges meet, or the two edges one after the other.",
  "no-fillet": () => "No arc of any radius runs from the one edge into the other here.",
  "no-sharp-corner": () => "The edges beside this arc never meet, so there is no corner to go back to.",
  "not-a-fillet": () => "This is no rounded corner: an arc between two edges of a chain. Pick one of those.",
  "relief-straight": () => "A corner is relieved between two straight edges only. Pick one of those.",
  "chamfer-angle": () => "At that angle the cut never reaches the other edge. Take a smaller one.",
  "extend-nothing-ahead": () => "Nothing lies ahead of this end. Draw what it should run to, or choose another end.",
  "extend-closed": () => "This has no end that could be run on. Pick a line, an arc, or an open chain near its end.",
  "inside-chain": () =>
    "This piece lies within a chain, which would come apart. Take the chain apart first, or round its corner.",
  "meet-no-corner": () => "The two never meet, however far they run. Pick another pair.",
  "split-nowhere": () => "There is nothing to split it at. Pick a place within it, or draw what crosses it.",
  "split-circle": () =>
    "A circle has no ends, so one cut leaves it whole. Split at crossings, or divide it into pieces.",
  "chain-needed": () => "This needs a chain or a contour. Join its pieces first.",
  "chain-too-short": () => "Too little would be left of the chain.",
  "mirror-line-needed": () => "Mirroring needs a straight line, or two points.",
  "width-too-wide": ({ limit }, length) =>
    `That is too wide for this chain to turn in: less than ${length(limit)} works.`,
  "width-tapered-arc": () => "An arc can't be given a tapered width exactly. Give it an even one, or straighten it.",
  "radius-no-fit": (values, length) =>
    `Between parallel lines only half their distance fits: ${sizes({ ...values, typed: values.limit! }, length)[1]}.`,
  "parallel-shrinks-away": ({ limit }, length) =>
    `Nothing is left of the circle that far inside. Less than ${length(limit)} works.`,
  "cannot-parallel": () => "A parallel needs a line, an edge or a circle. Pick one of those.",
  "trim-single-cut": ({ what }) =>
    `This ${what} is met at one place only, so it stays whole. It takes two crossings to cut a piece out of it.`,
  "trim-endless": () =>
    "A layout line has no end to trim. Select it and press Delete to remove it, or use Clear layout.",
  "trim-point": () => "A point has no piece to trim. Select it and press Delete to remove it.",
  "free-needed": () => "This needs a free curve. Pick one near the point that is meant.",
  "free-too-few": () => "A free curve needs two points, a closed one three. Take the curve away as a whole instead.",
  "width-needs-chain": () => "A width goes to a line, an arc or a chain of them. Pick one of those.",
  "width-closed": () => "A closed contour has no end to taper to. Type the same width for both, or only one.",
  "width-corner": () =>
    "Too wide for this corner: its edges are too short for it. Make it narrower, or the edges longer.",
  "width-none-within": () => "Only the ends of an open chain can have no width. Type more than 0.",
  "width-missing": () => "No piece has a width yet. Type one.",
  "width-crosses": () => "With this width the contour would cross itself. Make it narrower.",
  "true-nothing-told": () =>
    "None of this is told by moving what is drawn. Point the callout at lines, arcs, circles or places on them.",
  "true-at-odds": ({ count }) =>
    Number(count) === 1
      ? "This number can’t be true together with the others. Ask which of them is wrong."
      : `These ${count} numbers can’t all be true together. Ask which of them is wrong.`,
  "true-not-found": () =>
    "No drawing was found in which this is true and what holds goes on holding. " +
    "Let go of something that holds, or take a number nearer to what is drawn.",
  "true-spoils": ({ spoil }) => `${SPOILS[String(spoil)]!} Take a number nearer to what is drawn.`,
  "no-length": () => "The two ends are at the same place. Pick another point, or type a length.",
  "offset-vanishes": ({ typed, limit }, length) =>
    limit === undefined
      ? `Nothing is left at ${length(typed)}. Take a smaller distance, or the other side.`
      : `Nothing is left at ${length(typed)}: at ${length(limit)} the widest place closes.`,
  "offset-fails": () =>
    "What comes of it does not close: the contour crosses itself, or is as thin as the resolution. Tidy it first.",
  "offset-outside": () => "This place lies in no closed contour. Click inside one.",
  "area-leaks": ({ gap, x, y, reach }, length) =>
    `This area leaks at ${length(x)}, ${length(y)}, through a gap of ${length(gap)}. ` +
    (reach === undefined
      ? "Close it, or choose to bridge gaps."
      : `Gaps up to ${length(reach)} are bridged: close it, or type more.`),
  "area-open": () => "Nothing closes round this place. Click inside an area that lines, arcs or circles bound.",
  "combine-two": () => "This takes two contours. Pick another one.",
  "combine-nothing": () => "Nothing is left of these. Pick others, or the other way round.",
  "fit-closed": () => "This closes on itself, so no one arc is like it. Choose tangent arcs.",
  "fit-too-far": ({ deviation, tolerance }, length) =>
    `One arc lies up to ${length(deviation)} off it, farther than ${length(tolerance)}. Choose tangent arcs, or ` +
    "a larger tolerance.",
  "fit-fails": () => "No arcs follow this curve so closely. Take a larger tolerance.",
  "fit-nothing": () =>
    "There is nothing here that fewer arcs could stand for. Pick an ellipse, a free curve, or a chain of small pieces.",
  "already-straight": () => "This has no arcs: it is straight already.",
  "free-steered": () =>
    "Points steer this curve without its going through them: they can be moved, but none put on it or taken out.",
  "joint-none": () => "No arc runs on smoothly into another piece here. Pick a chain near a place where they do.",
  "points-no-circle": () => "These points lie in a line, or are too few: a circle or an arc takes three that bend.",
  "nothing-to-join": () => "There are no loose pieces to join. Lines and arcs on a cut layer can be joined.",
  "layers-apart": ({ layer, other }) =>
    `Ends meet, but lie on the layers ${layer} and ${other}. Put them on one layer (Pieces offers it), then join.`,
  "already-joined": ({ open }) =>
    `No ends meet: ${open === 1 ? "the one piece left open stands" : `all ${open} pieces left open stand`} alone. ` +
    "Extend or trim them until their ends touch.",
  "nothing-to-clear": () => "There is no layout to clear.",
  "same-point": () => "Both points are the same. Pick another one.",
  "points-in-line": () => "The three points lie on one line, so no circle runs through them. Pick one beside it.",
  "no-foot": () => "No line through this point is square to the curve where it really is. Pick another point.",
  "arc-turns-back": () =>
    "The end lies straight behind the start, so no arc gets there. Pick another end, or another direction.",
  "polygon-sides": () => "A polygon has 3 sides or more, and no more than 1000.",
  "slot-too-short": ({ limit }, length) =>
    `A slot must be longer than it is wide. More than ${length(limit)} overall works.`,
  "slot-too-wide": ({ limit }, length) =>
    `The slot is too wide for its arc: nothing is left inside. Less than ${length(limit)} works.`,
  "curves-meet": () => "The two curves meet, so the shortest line between them has no length.",
  "thread-unknown": ({ text }) =>
    `“${text}” is in none of the thread tables. M6, M20x1.5, 3/8-16 or 1/4-28 are examples of what is.`,
  "no-clearance": ({ text }) => `The tables have no clearance hole for ${text}. Type the size as a plain hole.`,
  "count-too-large": ({ limit }) => `That is too many at once. Up to ${limit} work.`,
  "pick-first": () => "Nothing is picked. Click a piece on the board first.",
  "not-a-curve": () => "This needs a line, an arc or a circle. Pick one of those.",
  "smooth-not-here": () =>
    "An ellipse or a free curve can't be used here. Pick a line, an arc or a circle, or make arcs of it with Arc fit.",
  "shift-too-far": ({ limit }, length) =>
    `Nothing would be left of an edge beside it: it can be shifted by less than ${length(limit)}.`,
  "shift-no-meeting": () => "The edge beside it never meets it there. Shift it less, or take the chain apart first.",
  "shift-used-up": () => "Nothing would be left of it between its neighbours. Shift it less.",
  "length-used-up": ({ limit }, length) =>
    `Nothing would be left of it. It is ${length(limit)} long now; its length must stay above 0.`,
  "arc-whole-turn": ({ limit }, length) =>
    `An arc this long would be a whole circle: less than ${length(limit)} works.`,
  "corner-at-end": () => "There is a corner already. Pick a place between the ends.",
  "corner-beyond": ({ limit }, length) => `That is beyond its end: it is ${length(limit)} long.`,
  "no-end-here": () => "No line, arc or open chain ends here. Click one of their ends.",
  "not-a-piece": () => "This needs a line or an arc, loose or in a chain. Pick one of those.",
  "not-an-arc": () => "This is no arc. Pick an arc, loose or in a chain.",
  "not-straight": () => "This needs straight lines. Pick a line, an edge or a layout line.",
  "not-round": () => "This needs an arc or a circle. Pick one of those.",
  "not-closed": () => "This closes no contour. Join what meets, or draw what is missing.",
  "layout-not-crossed": () =>
    "Nothing crosses this layout line on both sides of the pick, so it has no ends to cut between. Draw what " +
    "bounds it first.",
  "cannot-divide": () => "A layout line has no ends to divide between. Pick a line, an arc or a circle.",
  "annotations-locked": () => "Dimensions and notes are locked. Unlock them in Layers to change them, or to add more.",
  "lines-not-parallel": () =>
    "The two lines are not parallel, so they have no distance. Take Angle, or pick places on them.",
  "measures-nothing": () => "Measured that way the two places are 0 apart. Choose another way, or pick other places.",
  "not-on-a-circle": () => "These centres do not lie on one circle. Pick holes of one bolt circle, or two at a time.",
  "note-empty": () => "A note needs a text. Type what it should say.",
  "note-too-long": ({ most }) => `A note holds ${most} letters at most. Write it shorter, or as two notes.`,
  "letter-missing": ({ letter }) => `The lettering has no “${letter}”. Write it with other letters.`,
  "not-called": () =>
    "The ledger has no callout for this. Lengths, distances along x or y, angles, R and Ø can be written into it.",
  "not-dimensioned": () => "No dimension shows this callout. Lengths, angles, R and Ø have one.",
  "callout-not-placed": () => "This callout is not placed yet, so there is nothing to dimension. Place it first.",
  "nothing-to-hold": () =>
    "There is nothing here that it could hold on to. Click an edge, a hole, or a point that a snap names.",
  "thread-in-hole": (values, length) => {
    const [thread, hole] = sizes(
      { ...values, typed: Number(values.typed) / 2, limit: Number(values.limit) / 2, kind: "Ø" },
      length,
    );
    return `The thread's ${thread} lies within the hole's ${hole}. Choose a thread that is larger than its hole.`;
  },
  "nothing-called": () =>
    "No callout that is placed is without a dimension. Place callouts on the geometry first, in the ledger.",
  "layer-locked": ({ layer }) => `The layer ${layer} is locked. Unlock it to change what is on it.`,
  "layer-last": ({ layer }) => `The layer ${layer} belongs to every job and stays.`,
  "layer-not-empty": ({ layer, held }) =>
    `The layer ${layer} still has ${held} ${held === 1 ? "piece" : "pieces"} on it. Put them on another layer first.`,
  "layer-name-taken": ({ layer }) => `There is a layer ${layer} already. Each needs a name of its own.`,
  "endless-is-layout": () =>
    "A layout line without ends can't be cut. Layout to cut takes the piece of it between two crossings.",
  "corners-in-line": () =>
    "These four corners are no rectangle: two lie too near to each other, or three in a line. Click the four " +
    "corners of a rectangle whose sides are known.",
  "corners-crossed": () => "The corners cross over. Click them one after another round the rectangle.",
  "picture-points-near": () => "The two places are too near to each other. Take two that lie far apart.",
  "picture-first": () => "Click on a sketch picture, in the sketch card or under the drawing.",
  "picture-unscaled": () =>
    "This picture has no scale yet, so nothing can be measured on it. Scale it by a length that is written on it.",
  "pictures-differ": () => "All the places must lie on the same picture.",
  "plan-not-here": () => "No line of the plan lies here. Click nearer to one, or mark a new one.",
  "picture-gone": () => "The picture lies under the drawing no more, or has no scale. Put it back, or trace another.",
  "picture-not-scaled": () =>
    "No picture of the sketch is to scale yet. Take Scale the picture (bank Job), and give it one length that is " +
    "written on it; where there is none, drop one on the sketch card first.",
  "trace-no-strokes": () => "There are no strokes on this picture that stand out from the paper.",
  "trace-only-words": () =>
    "All that stands out on this picture is small, like lettering: no stroke is long enough to be an outline.",
  "trace-no-drawing": () =>
    "This does not look like a drawing on paper: too much of it is dark. Cut it to the sheet, or take it in more " +
    "even light.",
  "trace-thin": ({ pixels }) =>
    `The strokes are only about ${pixels} pixels wide, too thin to be followed. Take the photo closer, or scan it ` +
    "finer.",
  "trace-busy": ({ count }) =>
    `There is too much on it to tell apart: ${count} strokes. Zoom in on the part, and trace what is in sight.`,
  "trace-no-fit": ({ kind }) => `Its ink tells no ${kind}: too little of it is there, or it lies in one line.`,
  "trace-no-merge": () => "A circle is whole by itself: two lines or arcs, end to end, become one.",
  "trace-no-split": () =>
    "It can't be split here: a circle has no ends, and on either side some ink must be left. Take a place nearer to " +
    "its middle.",
  "trace-no-corner": () => "What these lie on does not meet anywhere: two lines that cross, or a line and an arc, do.",
  "trace-no-touch": () =>
    "The first can't touch the second with its other end where it is: of two, one must be an arc or a circle.",
  "trace-no-break": () => "It can't end there: on either side some ink must be left.",
  "picture-locked": () => "This picture is locked. Unlock it in the sketch card to change how it lies.",
  "snap-not-here": ({ kind }) => `No ${kind} snap is in reach here, so nothing was made. Move nearer, or press Esc.`,
  "property-impossible": () => "An arc must be less than a whole turn.",
  "axes-swapped": () =>
    "The short axis can't be longer than the long one. Change the long one first, or turn the ellipse.",
  "nothing-selected": () => "Nothing is selected that this could change. Select it first.",
  "dxf-empty": () => "The file is empty.",
  "dxf-not-text": () => "This is no text file. An ASCII DXF was expected.",
  "dxf-bad-code": ({ line, found }) =>
    `Line ${line}: “${found}” is no group code. This is no DXF, or it is damaged there.`,
  "dxf-truncated": ({ line }) => `Line ${line}: the file ends in the middle. It was cut off; ask for it again.`,
  "dxf-cut-short": ({ place: at }) => `At byte ${at} the file ends in the middle. It was cut off; ask for it again.`,
  "file-too-many": ({ limit }) =>
    `The file makes more than ${limit} curves. That is no drawing to cut; save it in parts, or take its rows of ` +
    "blocks apart.",
  "svg-too-large": ({ limit }) => `This SVG is larger than ${limit} MB. Save it in parts, or as a DXF.`,
  "svg-not-one": () => "This is no SVG.",
  "svg-entities": () => "This SVG defines entities of its own, which are not read. Save it without them.",
  "svg-too-deep": ({ limit }) => `Its groups lie more than ${limit} deep in each other. That is no drawing to cut.`,
  "svg-damaged": ({ found }) => `This SVG is damaged: ${found}.`,
  "svg-no-splines": () =>
    "Splines of this kind have no place in an SVG. Make arcs of them first (--arcs on the command line), or write a " +
    "DXF.",
  "rounds-away": ({ decimals }) =>
    `With ${decimals} decimals something of the drawing would be nothing. Take more decimals, or exact numbers.`,
  "rounds-into": ({ decimals }) =>
    `With ${decimals} decimals contours would cross or lie on one another. Take more decimals, or exact numbers.`,
  "tapped-layer": ({ layer }) =>
    `The drawing has a layer ${layer} of its own, and the profile puts tapped holes there: a machine could not tell ` +
    "them apart. Give the profile's layer another name.",
  "sheet-empty": () => "Nothing is drawn that could stand on paper.",
  "sheet-too-large": ({ paper }) =>
    `The drawing fits on ${paper} at no scale, beside its blocks. Take a larger sheet, or leave blocks out.`,
  "sheet-scale": ({ scale, paper, fits }) =>
    `At ${scale} the drawing does not fit on ${paper}. At ${fits} it does; or take a larger sheet.`,
  "template-too-large": ({ pages, most }) =>
    `It would be ${pages} pages; up to ${most} are made. Take larger paper, or cut the template in parts.`,
  "cutter-format": () => "The test cutter reads DXF files, and this is none that it can read. Write a DXF for it.",
  "cutter-unit": () => "The file does not say whether its numbers are millimetres or inches. Write it with its unit.",
  "cutter-layer": ({ layer }) =>
    `There is no process for the layer ${layer}. Name it in the machine's profile, or put nothing on it.`,
  "cutter-entity": ({ type }) => `“${type}” is in the file, which the cutter does not know. Make lines and arcs of it.`,
  "cutter-point": ({ process }) =>
    `A point is in the file, and a ${process} makes no single holes. Cut the holes instead.`,
  "cutter-open": () => "A contour is open. Only marks may be: close it, or put it on the layer of marks.",
  "cutter-nothing": () => "Nothing in the file is to be cut. It needs a closed contour on a layer that is cut.",
  "cutter-doubled": () => "The same edge is there twice and would be cut twice. Remove one of them.",
  "cutter-crossing": () => "Two contours cross. Trim what is too much.",
  "cutter-bed": ({ x, y, width, height }, length) =>
    `It needs ${length(x)} × ${length(y)} with room to lead in, and the bed has ${length(width)} × ` +
    `${length(height)}. Choose another process, or cut it in parts.`,
  "profile-unreadable": () =>
    "This is no machine profile. One is saved under Settings, as a file ending in .profile.json.",
  "profile-newer": () => "This profile was written by a newer version. Nothing was taken from it.",
  "profile-wrong": ({ wrong }) => `This profile can’t be used: ${wrong}`,
  "dxf-no-entities": () => "The file has no section with geometry.",
  "version-newer": ({ version, known }) =>
    `This was written by a newer version of Ash Edge (format ${version}; this one knows ${known}). Open it ` +
    "there, or bring this one up to date.",
  "edit-unsound": ({ reason }) =>
    `That would make something that can’t be stored (${reason}), so nothing was changed. This is a fault of the ` +
    "program, not yours.",
  "areas-uncertain": () =>
    "Edges lie so nearly on one another here that what is inside can't be told. Move one by more than a resolution, " +
    "or make them the same.",
  "too-much": ({ most }) =>
    `More than ${most} places where curves cross or touch: too many to show beforehand. Click, or press Enter, to ` +
    "have it worked out.",
  "too-long": () => "So long a curve takes too long to show beforehand. Click to have it worked out.",
  "file-not-readable": ({ reason }) => `The file can't be read: ${reason}.`,
};

/** The sentence for a refusal, with lengths in the job's unit. */
export const sayRefusal = ({ code, values }: Refusal, unit: Unit): string =>
  SENTENCES[code](values, (value) => (typeof value === "number" ? showLengthUnit(value, unit) : String(value)));

/** The sentence for a fault that stands against cutting, as its check has it. */
export const sayFault = ({ code, values }: Fault, unit: Unit): string => FAULT_SENTENCES[code]!(values, unit);

const BECAME: Readonly<Record<"outside" | "inside", Readonly<Record<"round" | "other", readonly [string, string]>>>> = {
  outside: {
    round: ["hole became a disc", "holes became discs"],
    other: ["inner contour became an outer one", "inner contours became outer ones"],
  },
  inside: {
    round: ["disc became a hole", "discs became holes"],
    other: ["outer contour became an inner one", "outer contours became inner ones"],
  },
};

/** Contours whose role changed: `8 holes became discs, 1 outer contour became an inner one`; empty where none did. */
export const sayRoleChanges = ({ toOutside, toInside }: Pick<RoleChanges, "toOutside" | "toInside">): string =>
  (
    [
      ["outside", toOutside],
      ["inside", toInside],
    ] as const
  )
    .flatMap(([to, contours]) => {
      const round = contours.filter(({ circle }) => circle).length;
      return [
        [round, BECAME[to].round],
        [contours.length - round, BECAME[to].other],
      ] as const;
    })
    .flatMap(([n, [one, more]]) => (n > 0 ? [`${n} ${n === 1 ? one : more}`] : []))
    .join(", ");

/** Joined: `1 contour from 4 pieces`. */
export const sayJoined = (
  {
    contours,
    chains,
    pieces,
    mended = 0,
    bent = 0,
    openEnds = 0,
    nearest,
    apart: layers,
  }: {
    contours: number;
    chains: number;
    pieces: number;
    mended?: number;
    bent?: number;
    openEnds?: number;
    nearest?: number;
    apart?: { readonly layer: string; readonly other: string };
  },
  unit: Unit = "mm",
): string => {
  const made = [
    contours > 0 ? `${contours} contour${contours === 1 ? "" : "s"}` : "",
    chains > 0 ? `${chains} open chain${chains === 1 ? "" : "s"}` : "",
  ].filter(Boolean);
  const gaps = mended > 0 ? `, ${mended} gap${mended === 1 ? "" : "s"} closed` : "";
  const changed = bent > 0 ? `, ${bent} arc${bent === 1 ? "" : "s"} with another radius than before` : "";
  const apart = layers
    ? `: ends meet, but lie on the layers ${layers.layer} and ${layers.other}`
    : nearest === undefined
      ? ""
      : `, ${showLengthUnit(nearest, unit)} apart`;
  const left = openEnds > 0 ? ` · ${openEnds} ends open${apart}` : "";
  return `${made.join(" and ")} from ${pieces} piece${pieces === 1 ? "" : "s"}${gaps}${changed}${left}`;
};
