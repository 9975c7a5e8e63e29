import Joi from "joi";

/**
 * What a stored or received drawing must look like. These doors stand at the store, the server and the job file; the geometry
 * itself trusts what has passed.
 */
const number = Joi.number().unsafe().required();
const id = Joi.number().integer().min(0).required();
const point = Joi.object({ x: number, y: number });
const place = Joi.alternatives(
  Joi.valid("start", "end", "middle", "centre", "area", "sharp"),
  Joi.object({ quarter: Joi.valid(0, 1, 2, 3).required() }),
  Joi.object({ along: number }),
  Joi.object({ pixel: point.required() }),
  Joi.object({ crosses: Joi.link("#ref").required() }),
);
const ref = Joi.object({ id, vertex: id.optional(), place, near: point, turned: Joi.valid(true) }).id("ref");
const base = { id, layer: id, line: Joi.valid("solid", "dashed", "dotted") };

const entity = Joi.alternatives().conditional(".kind", {
  switch: [
    { is: "point", then: Joi.object({ ...base, kind: Joi.any(), at: point.required() }) },
    {
      is: "piece",
      then: Joi.object({ ...base, kind: Joi.any(), a: point.required(), b: point.required(), bulge: number }),
    },
    {
      is: "circle",
      then: Joi.object({ ...base, kind: Joi.any(), centre: point.required(), radius: number.positive() }),
    },
    { is: "endless", then: Joi.object({ ...base, kind: Joi.any(), through: point.required(), angle: number }) },
    {
      is: "ellipse",
      then: Joi.object({
        ...base,
        kind: Joi.any(),
        centre: point.required(),
        major: point.required(),
        ratio: number.positive(),
        from: number,
        sweep: number,
      }),
    },
    {
      is: "free",
      then: Joi.object({
        ...base,
        kind: Joi.any(),
        degree: Joi.number().integer().min(1).max(25).required(),
        knots: Joi.array().items(number).min(4).required(),
        points: Joi.array().items(point).min(2).required(),
        weights: Joi.array().items(number.positive()),
      }),
    },
    {
      is: "chain",
      then: Joi.object({
        ...base,
        kind: Joi.any(),
        closed: Joi.boolean().required(),
        vertices: Joi.array()
          .items(
            Joi.object({ id, at: point.required(), bulge: number, width: Joi.array().items(number.min(0)).length(2) }),
          )
          .min(2)
          .required(),
      }),
      otherwise: Joi.forbidden(),
    },
  ],
});

const layer = Joi.object({
  id,
  name: Joi.string().required(),
  role: Joi.valid("profile", "outside", "inside", "mark", "layout").required(),
  shown: Joi.boolean().required(),
  locked: Joi.boolean().required(),
});

const calloutFields = {
  kind: Joi.valid("length", "diameter", "radius", "angle", "centres", "count", "thread").required(),
  value: number,
  thread: Joi.string(),
  name: Joi.string().allow("").required(),
  tolerance: Joi.number().positive(),
  limits: Joi.object({ low: number.max(0), high: number.min(0) }),
  pin: Joi.object({ sketch: Joi.string().required(), x: number, y: number }),
};
const callout = Joi.object({ ...calloutFields, id, links: Joi.array().items(ref).required() });

const picture = Joi.object({
  id,
  blob: Joi.string().required(),
  width: number.positive(),
  height: number.positive(),
  at: point.required(),
  scale: number.positive(),
  angle: number,
  scaled: Joi.boolean().required(),
  shown: Joi.boolean().required(),
  locked: Joi.boolean().required(),
  opacity: number.min(0).max(1),
  from: Joi.string(),
});

const settings = Joi.object({
  id: Joi.valid(0).required(),
  unit: Joi.valid("mm", "in").required(),
  datum: point.required(),
  joinTolerance: number.positive(),
  left: Joi.array().items(Joi.string().max(200)),
  generalTolerance: Joi.number().positive(),
});

/** A callout without an id or links, as a new job lists it. */
export const newCalloutSchema = Joi.object(calloutFields);

/** The rows of a drawing, as `drawingText` writes them, with the next free id beside. */
export const drawingRowsSchema = Joi.object({
  entity: Joi.array().items(entity).required(),
  layer: Joi.array().items(layer).min(1).required(),
  callout: Joi.array().items(callout).required(),
  picture: Joi.array().items(picture),
  settings: Joi.array().items(settings).length(1).required(),
});

const change = Joi.object({
  table: Joi.valid("entity", "layer", "callout", "picture", "settings").required(),
  id,
  before: Joi.any(),
  after: Joi.alternatives().conditional("table", {
    switch: [
      { is: "entity", then: entity },
      { is: "layer", then: layer },
      { is: "callout", then: callout },
      { is: "picture", then: picture },
      { is: "settings", then: settings },
    ],
  }),
});

export const editSchema = Joi.object({
  label: Joi.string().required(),
  gesture: Joi.string().required(),
  changes: Joi.array().items(change).required(),
  lineage: Joi.array().required(),
  cutLoose: Joi.array()
    .items(Joi.object({ callout: id, links: Joi.array().items(ref).required(), offer: Joi.array().items(ref) }))
    .required(),
  answered: Joi.array().items(id),
});
