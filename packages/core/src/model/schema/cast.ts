import * as yup from 'yup';
import {
  ARCHETYPE_FIELDS,
  BODY_FIELDS,
  CONE_FIELDS,
  GAIT_FIELDS,
  HEARING_FIELDS,
  IMPERFECTION_FIELDS,
  LANTERN_FIELDS,
  MOST_CONES,
  ROLE_FIELDS,
  SIGHT_FIELDS,
  SQUAD_FIELDS,
  STANCE,
} from '../fields/cast-fields.ts';
import { GUARD_FIELDS, MOVE_FIELDS } from '../fields/fight-fields.ts';
import {
  expression,
  field,
  fieldsOf,
  list,
  name,
  needed,
  note,
  record,
  shape,
  title,
  type AnySchema,
  type Fields,
} from './shapes.ts';

/** The same fields, all optional. */
const partly = (fields: Fields): Fields =>
  Object.fromEntries(
    Object.entries(fields).map(([field, schema]) => [
      field,
      (schema as yup.Schema).optional() as AnySchema,
    ]),
  );

const cone = shape(() => fieldsOf(CONE_FIELDS));

const gaitShape = shape(() => fieldsOf(GAIT_FIELDS), 'speed');
const gait: AnySchema = yup
  .lazy((value: unknown) => (typeof value === 'object' ? gaitShape : field(GAIT_FIELDS.speed)))
  .meta({ variants: [field(GAIT_FIELDS.speed), gaitShape], required: true });

// The order of a file's fields is older than that of the forms.
const { radius, acceleration, turnRate, height, crouchHeight } = fieldsOf(BODY_FIELDS);
const body: Fields = { radius, acceleration, turnRate, height, crouchHeight };
const sight: Fields = {
  cones: needed(list(cone, MOST_CONES).min(1)),
  fade: field(SIGHT_FIELDS.fade),
  grace: field(SIGHT_FIELDS.grace),
  ...fieldsOf(SIGHT_FIELDS),
};
const hearing = fieldsOf(HEARING_FIELDS);
const lantern = fieldsOf(LANTERN_FIELDS);
const minds = list(needed(name()), 4);

const move = shape(() => ({ title: title(), note: note(), ...fieldsOf(MOVE_FIELDS) }));
const guard = shape(() => ({ title: title(), note: note(), ...fieldsOf(GUARD_FIELDS) }));
const fighting: Fields = { moves: record(move, true), guards: record(guard, true) };

export const archetype = shape(() => ({
  title: needed(title()),
  note: note(),
  faction: needed(name()),
  mind: name(),
  minds,
  squad: name(),
  ...fieldsOf(IMPERFECTION_FIELDS),
  body: needed(shape(() => body)),
  gaits: record(gait),
  gait: needed(name()),
  sight: shape(() => sight),
  hearing: shape(() => hearing),
  lantern: shape(() => lantern),
  ...fieldsOf(ARCHETYPE_FIELDS),
  ...fighting,
}));

export const overrides = shape(() => ({
  faction: name(),
  mind: name(),
  minds,
  ...fieldsOf(IMPERFECTION_FIELDS),
  body: shape(() => partly(body)),
  gaits: record(gait, true),
  gait: name(),
  sight: shape(() => partly(sight)),
  hearing: shape(() => partly(hearing)),
  lantern: shape(() => partly(lantern)),
  ...fieldsOf(ARCHETYPE_FIELDS),
  ...fighting,
}));

export const squad = shape(() => ({
  title: needed(title()),
  note: note(),
  ...fieldsOf(SQUAD_FIELDS),
  roles: list(
    shape(() => ({
      role: needed(name()),
      title: title(),
      slots: field(ROLE_FIELDS.slots),
      score: needed(expression()),
      ...fieldsOf(ROLE_FIELDS),
    })),
    16,
  ),
}));

export const faction = shape(() => ({
  title: title(),
  note: note(),
  toward: record(field(STANCE), true),
}));
