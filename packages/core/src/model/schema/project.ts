import * as yup from 'yup';
import {
  MEMORY_TYPES,
  PROJECT_FORMAT,
  PROJECT_VERSION,
  ROUTE_ENDS,
  STATE_KINDS,
  UNITS,
  WALL_KINDS,
} from '../documents.ts';
import { actionSchema } from './action.ts';
import {
  expression,
  name,
  note,
  pair,
  record,
  recursive,
  shape,
  title,
  type AnySchema,
} from './shapes.ts';

const oneOf = (values: readonly string[]) => yup.string().oneOf([...values]);
const number = (minimum: number, maximum: number) => yup.number().min(minimum).max(maximum);
const list = (of: AnySchema, maximum: number) => yup.array(of as yup.Schema).max(maximum);
const needed = (schema: AnySchema) => (schema as yup.Schema).required();

const memoryKey = shape({
  type: needed(oneOf(MEMORY_TYPES)),
  unit: oneOf(UNITS),
  default: yup
    .mixed()
    .test('plain', 'must be a number, true, false or text', (value) =>
      ['undefined', 'number', 'boolean', 'string'].includes(typeof value),
    )
    .meta({ variants: [yup.number(), yup.boolean(), yup.string()] }),
  forgetAfter: number(0.01, 86_400),
  note: note(),
});

const actions = list(actionSchema, 32);

const transition = shape({
  to: name(),
  on: yup
    .string()
    .matches(
      /^[A-Za-z][\w]*(\.[A-Za-z][\w]*)*$/,
      'must be an event name such as done or sight.certain',
    ),
  when: expression(),
  for: number(0, 3600),
  after: number(0, 3600),
  urgent: yup.boolean(),
  internal: yup.boolean(),
  do: actions,
  note: note(),
});

const state: AnySchema = recursive('state', () => stateShape);
const states = list(state, 200).min(1);

const stateShape = shape({
  id: needed(name()),
  title: title(),
  note: note(),
  kind: oneOf(STATE_KINDS),
  initial: name(),
  states,
  entry: actions,
  activity: actionSchema,
  exit: actions,
  leaves: list(transition, 64),
});

const mind = shape({
  title: needed(title()),
  note: note(),
  memory: record(memoryKey, true),
  machine: needed(shape({ initial: needed(name()), states: needed(states) })),
});

const cone = shape({
  range: needed(number(0.1, 500)),
  halfAngle: needed(number(1, 180)),
  gain: needed(number(0, 100)),
});

const archetype = shape({
  title: needed(title()),
  note: note(),
  faction: needed(name()),
  mind: name(),
  body: needed(
    shape({
      radius: needed(number(0.1, 3)),
      acceleration: needed(number(0.1, 200)),
      turnRate: needed(number(1, 3600)),
    }),
  ),
  gaits: record(number(0, 30)),
  gait: needed(name()),
  sight: shape({
    cones: needed(list(cone, 8).min(1)),
    fade: needed(number(0, 100)),
    grace: needed(number(0, 600)),
    curious: needed(number(0, 1)),
    certain: needed(number(0, 1)),
    forgetAfter: needed(number(0, 3600)),
  }),
});

const place = () => pair(-10_000, 'a place, in metres');

const ground = shape({
  title: needed(title()),
  note: note(),
  width: needed(number(2, 1000)),
  height: needed(number(2, 1000)),
  walls: needed(
    list(
      shape({
        kind: oneOf(WALL_KINDS),
        at: needed(place()),
        size: needed(pair(0.05, 'width and height, in metres')),
        note: note(),
      }),
      5000,
    ),
  ),
  routes: record(
    shape({
      title: title(),
      points: needed(list(needed(place()), 500).min(2)),
      end: oneOf(ROUTE_ENDS),
      wait: number(0, 600),
    }),
  ),
  agents: record(
    shape({
      title: title(),
      archetype: needed(name()),
      at: needed(place()),
      heading: number(-360, 360),
      route: name(),
    }),
  ),
});

/** The form of a project document. Names that must exist elsewhere are checked by the compiler, not here. */
export const projectSchema = shape({
  format: needed(oneOf([PROJECT_FORMAT])),
  version: needed(yup.number().oneOf([PROJECT_VERSION])),
  title: needed(title()),
  note: note(),
  ticksPerSecond: number(10, 120).integer(),
  minds: record(mind),
  archetypes: record(archetype),
  grounds: record(ground),
  start: needed(
    shape({
      ground: needed(name()),
      play: name(),
      seed: number(0, Number.MAX_SAFE_INTEGER).integer(),
    }),
  ),
});
