import * as yup from 'yup';
import { CHANNELS, PLAYER_ACTS, PROJECT_FORMAT, PROJECT_VERSION, SENSES } from '../documents.ts';
import { HEADING } from '../fields/ground-fields.ts';
import {
  BREAKPOINT_FIELDS,
  CADENCE_EVERY,
  INPUT_TICK,
  MEMORY_FIELDS,
  PROJECT_FIELDS,
  SEED,
  STATE_FIELDS,
  STEERING,
  TIER_CHANGE_FIELDS,
  TRANSITION_FIELDS,
} from '../fields/mind-fields.ts';
import { RUN_FINDING_FIELDS } from '../fields/run-finding-fields.ts';
import { EVENT_PATTERN } from '../names.ts';
import { actionSchema } from './action.ts';
import { activitySchema, choiceOfMindSchema, rulesSchema, treeSchema } from './behaviour.ts';
import { archetype, faction, squad } from './cast.ts';
import { bandSetSchema } from './choice.ts';
import { ground } from './ground.ts';
import {
  expression,
  field,
  fieldsOf,
  list,
  name,
  needed,
  note,
  oneOf,
  place,
  record,
  recursive,
  shape,
  title,
  type AnySchema,
} from './shapes.ts';

const seed = () => field(SEED);

const memoryKey = shape(() => ({
  type: field(MEMORY_FIELDS.type),
  unit: field(MEMORY_FIELDS.unit),
  default: yup
    .mixed()
    .test('plain', 'must be a number, true, false or text', (value) =>
      ['undefined', 'number', 'boolean', 'string'].includes(typeof value),
    )
    .meta({ variants: [yup.number(), yup.boolean(), yup.string()] }),
  ...fieldsOf(MEMORY_FIELDS),
  note: note(),
}));

const actions = list(actionSchema, 32);

const transition = shape(() => ({
  to: name(),
  on: yup.string().matches(EVENT_PATTERN, 'must be an event name such as done or sight.certain'),
  when: expression(),
  ...fieldsOf(TRANSITION_FIELDS),
  urgent: yup.boolean(),
  internal: yup.boolean(),
  do: actions,
  note: note(),
}));

const state: AnySchema = recursive('state', () => stateShape);
const states = list(state, 200).min(1);

const stateShape = shape(() => ({
  id: needed(name()),
  title: title(),
  note: note(),
  ...fieldsOf(STATE_FIELDS),
  initial: name(),
  states,
  entry: actions,
  activity: activitySchema,
  exit: actions,
  transitions: list(transition, 64),
  attention: list(oneOf(SENSES), SENSES.length),
}));

const everySchema = shape(() => ({ every: field(CADENCE_EVERY) }), 'every');
const onEventSchema = shape(() => ({ on: needed(oneOf(['event'])) }), 'on');
const cadence: AnySchema = yup
  .lazy((value: unknown) => {
    if (value === undefined) return yup.mixed();
    return typeof value === 'object' && value !== null && 'on' in value
      ? onEventSchema
      : everySchema;
  })
  .meta({ variants: [everySchema, onEventSchema] });

const mind = shape(() => ({
  title: needed(title()),
  note: note(),
  memory: record(memoryKey, true),
  cadence,
  channels: list(oneOf(CHANNELS), CHANNELS.length),
  machine: shape(() => ({ initial: needed(name()), states: needed(states) })),
  activity: activitySchema,
  trees: record(treeSchema, true),
  rules: record(rulesSchema, true),
  choices: record(choiceOfMindSchema, true),
}))
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

const input = shape(() => ({
  tick: field(INPUT_TICK),
  agent: needed(name()),
  x: field(STEERING),
  y: field(STEERING),
  gait: name(),
  act: oneOf(PLAYER_ACTS),
  at: place(),
  move: name(),
  place: place(),
  control: oneOf(['player', 'minds']),
}));

const player = shape(() => ({
  title: needed(title()),
  note: note(),
  seed: seed(),
  inputs: needed(list(input, 50_000)),
}));

const setup = shape(() => ({
  title: needed(title()),
  note: note(),
  play: name(),
  seed: seed(),
  player: name(),
  agents: record(
    shape(() => ({ at: place(), heading: field(HEADING) })),
    true,
  ),
}));

const tierChange = shape(() => ({
  path: needed(yup.string().min(1).max(300)),
  ...fieldsOf(TIER_CHANGE_FIELDS),
}));

const tier = shape(() => ({
  name: needed(name()),
  title: title(),
  note: note(),
  changes: list(tierChange, 200),
}));

const breakpoint = shape(() => ({
  ...fieldsOf(BREAKPOINT_FIELDS),
  of: yup.string().max(200),
  when: expression(),
  agent: name(),
  archetype: name(),
  note: note(),
}));

/** The form of a project document. Names that must exist elsewhere are checked by the compiler, not here. */
export const projectSchema = shape(() => ({
  format: needed(oneOf([PROJECT_FORMAT])),
  version: needed(yup.number().oneOf([PROJECT_VERSION])),
  title: needed(title()),
  note: note(),
  ...fieldsOf(PROJECT_FIELDS),
  minds: record(mind),
  archetypes: record(archetype),
  grounds: record(ground),
  squads: record(squad, true),
  factions: record(faction, true),
  players: record(player, true),
  setups: record(setup, true),
  bands: record(bandSetSchema, true),
  tiers: list(tier, 8),
  breakpoints: record(breakpoint, true),
  runFindings: shape(() => fieldsOf(RUN_FINDING_FIELDS)),
  start: needed(
    shape(() => ({
      ground: needed(name()),
      play: name(),
      seed: seed(),
      player: name(),
      tier: name(),
    })),
  ),
}));
