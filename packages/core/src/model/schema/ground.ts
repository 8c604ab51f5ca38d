import { overrides } from './cast.ts';
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

const wall = shape({
  kind: field(WALL_FIELDS.kind),
  at: needed(place()),
  size: needed(size()),
  ...fieldsOf(WALL_FIELDS),
  note: note(),
});

const post = shape({ title: title(), at: needed(place()), ...fieldsOf(POST_FIELDS) });

export const ground = shape({
  title: needed(title()),
  note: note(),
  ...fieldsOf(GROUND_FIELDS),
  walls: needed(list(wall, 5000)),
  lamps: record(
    shape({
      title: title(),
      at: needed(place()),
      ...fieldsOf(LAMP_FIELDS),
    }),
    true,
  ),
  gates: record(
    shape({
      title: title(),
      at: needed(place()),
      size: needed(size()),
      ...fieldsOf(GATE_FIELDS),
    }),
    true,
  ),
  plates: record(
    shape({
      title: title(),
      at: needed(place()),
      size: needed(size()),
      opens: needed(name()),
    }),
    true,
  ),
  things: record(
    shape({
      title: title(),
      kind: field(THING_FIELDS.kind),
      at: needed(place()),
      ...fieldsOf(THING_FIELDS),
    }),
    true,
  ),
  posts: record(post, true),
  spawns: record(post, true),
  zones: record(shape({ title: title(), at: needed(place()), size: needed(size()) }), true),
  routes: record(
    shape({
      title: title(),
      points: needed(list(needed(place()), 500).min(2)),
      ...fieldsOf(ROUTE_FIELDS),
    }),
  ),
  agents: record(
    shape({
      title: title(),
      archetype: needed(name()),
      at: needed(place()),
      heading: field(AGENT_FIELDS.heading),
      route: name(),
      post: name(),
      squad: name(),
      ...fieldsOf(AGENT_FIELDS),
      overrides,
    }),
  ),
});
