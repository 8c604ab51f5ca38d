import { overrides } from './cast.ts';
import {
  MODE_FIELDS,
  SCHEDULE_FIELDS,
  SCORE_FIELDS,
  WAVE_FIELDS,
} from '../fields/director-fields.ts';
import {
  AGENT_FIELDS,
  GATE_FIELDS,
  GROUND_FIELDS,
  LAMP_FIELDS,
  POST_FIELDS,
  ROUTE_FIELDS,
  SIZE,
  THING_FIELDS,
  WALL_FIELDS,
} from '../fields/ground-fields.ts';
import {
  field,
  fieldsOf,
  list,
  name,
  needed,
  note,
  pair,
  place,
  record,
  shape,
  title,
} from './shapes.ts';

const size = () => pair(SIZE, 'width and height, in metres');

const wall = shape(() => ({
  kind: field(WALL_FIELDS.kind),
  at: needed(place()),
  size: needed(size()),
  ...fieldsOf(WALL_FIELDS),
  note: note(),
}));

const post = shape(() => ({ title: title(), at: needed(place()), ...fieldsOf(POST_FIELDS) }));

const mode = shape(() => ({ mode: needed(name()), ...fieldsOf(MODE_FIELDS) }));

export const ground = shape(() => ({
  title: needed(title()),
  note: note(),
  ...fieldsOf(GROUND_FIELDS),
  walls: needed(list(wall, 5000)),
  lamps: record(
    shape(() => ({
      title: title(),
      at: needed(place()),
      ...fieldsOf(LAMP_FIELDS),
    })),
    true,
  ),
  gates: record(
    shape(() => ({
      title: title(),
      at: needed(place()),
      size: needed(size()),
      ...fieldsOf(GATE_FIELDS),
    })),
    true,
  ),
  plates: record(
    shape(() => ({
      title: title(),
      at: needed(place()),
      size: needed(size()),
      opens: needed(name()),
    })),
    true,
  ),
  things: record(
    shape(() => ({
      title: title(),
      kind: field(THING_FIELDS.kind),
      at: needed(place()),
      ...fieldsOf(THING_FIELDS),
    })),
    true,
  ),
  posts: record(post, true),
  spawns: record(post, true),
  zones: record(
    shape(() => ({ title: title(), at: needed(place()), size: needed(size()) })),
    true,
  ),
  routes: record(
    shape(() => ({
      title: title(),
      points: needed(list(needed(place()), 500).min(2)),
      ...fieldsOf(ROUTE_FIELDS),
    })),
  ),
  director: name(),
  scores: record(
    shape(() => ({ title: title(), ...fieldsOf(SCORE_FIELDS) })),
    true,
  ),
  schedule: shape(() => ({
    modes: needed(list(mode, 64).min(1)),
    ...fieldsOf(SCHEDULE_FIELDS),
  })),
  waves: record(
    shape(() => ({
      title: title(),
      note: note(),
      archetype: needed(name()),
      ...fieldsOf(WAVE_FIELDS),
      at: list(needed(name()), 64).min(1),
      zone: name(),
      squad: name(),
      route: name(),
      home: name(),
    })),
    true,
  ),
  agents: record(
    shape(() => ({
      title: title(),
      archetype: needed(name()),
      at: needed(place()),
      heading: field(AGENT_FIELDS.heading),
      route: name(),
      post: name(),
      squad: name(),
      home: name(),
      ...fieldsOf(AGENT_FIELDS),
      overrides,
    })),
  ),
}));
