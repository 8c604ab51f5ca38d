import * as yup from 'yup';
import { STANCES } from '../documents.ts';
import {
  expression,
  list,
  name,
  needed,
  note,
  number,
  oneOf,
  record,
  shape,
  title,
  type AnySchema,
  type Fields,
} from './shapes.ts';

/** The same fields, none of them needed. */
const partly = (fields: Fields): Fields =>
  Object.fromEntries(
    Object.entries(fields).map(([field, schema]) => [
      field,
      (schema as yup.Schema).optional() as AnySchema,
    ]),
  );

const cone = shape({
  range: needed(number(0.1, 500)),
  halfAngle: needed(number(1, 180)),
  gain: needed(number(0, 100)),
});

const gaitShape = shape(
  {
    speed: needed(number(0, 30)),
    noise: number(0, 100),
    crouched: yup.boolean().oneOf([true]),
    seen: number(0, 1),
  },
  'speed',
);
const gait: AnySchema = yup
  .lazy((value: unknown) => (typeof value === 'object' ? gaitShape : needed(number(0, 30))))
  .meta({ variants: [number(0, 30), gaitShape], required: true });

const body: Fields = {
  radius: needed(number(0.1, 3)),
  acceleration: needed(number(0.1, 200)),
  turnRate: needed(number(1, 3600)),
  height: number(0.2, 6),
  crouchHeight: number(0.1, 6),
};
const sight: Fields = {
  cones: needed(list(cone, 8).min(1)),
  fade: needed(number(0, 100)),
  grace: needed(number(0, 600)),
  curious: needed(number(0, 1)),
  certain: needed(number(0, 1)),
  forgetAfter: needed(number(0, 3600)),
  points: number(1, 3).integer(),
};
const hearing: Fields = { threshold: needed(number(0, 1)) };
const lantern: Fields = { reach: needed(number(0.5, 50)), strength: needed(number(0, 1)) };
const minds = list(needed(name()), 4);

export const archetype = shape({
  title: needed(title()),
  note: note(),
  faction: needed(name()),
  mind: name(),
  minds,
  squad: name(),
  reaction: number(0, 5),
  body: needed(shape(body)),
  gaits: record(gait),
  gait: needed(name()),
  sight: shape(sight),
  hearing: shape(hearing),
  lantern: shape(lantern),
  health: number(1, 1_000_000),
  recycle: number(0.1, 3600),
  sleepBeyond: number(1, 10_000),
});

export const overrides = shape({
  faction: name(),
  mind: name(),
  minds,
  reaction: number(0, 5),
  body: shape(partly(body)),
  gaits: record(gait, true),
  gait: name(),
  sight: shape(partly(sight)),
  hearing: shape(partly(hearing)),
  lantern: shape(partly(lantern)),
  health: number(1, 1_000_000),
  recycle: number(0.1, 3600),
  sleepBeyond: number(1, 10_000),
});

export const squad = shape({
  title: needed(title()),
  note: note(),
  reach: number(0, 10_000),
  delay: number(0, 60),
  roles: list(
    shape({
      role: needed(name()),
      title: title(),
      slots: number(1, 1000).integer(),
      score: needed(expression()),
      steady: number(0, 1000),
    }),
    16,
  ),
});

export const faction = shape({
  title: title(),
  note: note(),
  toward: record(oneOf(STANCES), true),
});
