import * as yup from 'yup';
import {
  MEMORY_SCOPES,
  MEMORY_TYPES,
  PROJECT_FORMAT,
  PROJECT_VERSION,
  ROUTE_ENDS,
  STATE_KINDS,
  UNITS,
  WALL_KINDS,
} from '../documents.ts';
import { CHANNELS } from '../actions.ts';
import { actionSchema } from './action.ts';
import { activitySchema, rulesSchema, treeSchema } from './behaviour.ts';
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
  scope: oneOf(MEMORY_SCOPES),
  most: number(1, 256).integer(),
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
  activity: activitySchema,
  exit: actions,
  leaves: list(transition, 64),
});

const everySchema = shape({ every: needed(number(0.01, 60)) }, 'every');
const onEventSchema = shape({ on: needed(oneOf(['event'])) }, 'on');
const cadence: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed();
    return typeof value === 'object' && value !== null && 'on' in value
      ? onEventSchema
      : everySchema;
  })
  .meta({ variants: [everySchema, onEventSchema] });

const mind = shape({
  title: needed(title()),
  note: note(),
  memory: record(memoryKey, true),
  cadence,
  channels: list(oneOf(CHANNELS), CHANNELS.length),
  machine: shape({ initial: needed(name()), states: needed(states) }),
  activity: activitySchema,
  trees: record(treeSchema, true),
  rules: record(rulesSchema, true),
})
  .meta({ oneOf: ['machine', 'activity'] })
  .test('one-way-to-run', (value, context) => {
    const { machine, activity } = (value ?? {}) as Record<string, unknown>;
    if ((machine === undefined) !== (activity === undefined)) return true;
    return context.createError({
      message:
        machine === undefined
          ? 'needs a machine, or an activity that is the whole mind'
          : 'has a machine and an activity; it takes one of them. Put the activity into a state',
    });
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
  minds: list(needed(name()), 4),
  squad: name(),
  reaction: number(0, 5),
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
      squad: name(),
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
  squads: record(shape({ title: needed(title()), note: note() }), true),
  start: needed(
    shape({
      ground: needed(name()),
      play: name(),
      seed: number(0, Number.MAX_SAFE_INTEGER).integer(),
    }),
  ),
});
