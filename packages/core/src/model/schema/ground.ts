import * as yup from 'yup';
import { overrides } from './cast.ts';
import { GATE_STATES, ROUTE_ENDS, THING_KINDS, WALL_KINDS } from '../documents.ts';
import {
  list,
  name,
  needed,
  note,
  number,
  oneOf,
  pair,
  place,
  record,
  shape,
  title,
} from './shapes.ts';

const size = () => pair(0.05, 'width and height, in metres');

const wall = shape({
  kind: oneOf(WALL_KINDS),
  at: needed(place()),
  size: needed(size()),
  height: number(0.05, 50),
  muffles: number(0, 1000),
  note: note(),
});

const post = shape({ title: title(), at: needed(place()), heading: number(-360, 360) });

export const ground = shape({
  title: needed(title()),
  note: note(),
  width: needed(number(2, 1000)),
  height: needed(number(2, 1000)),
  light: number(0, 1),
  walls: needed(list(wall, 5000)),
  lamps: record(
    shape({
      title: title(),
      at: needed(place()),
      reach: needed(number(0.5, 100)),
      strength: needed(number(0, 1)),
    }),
    true,
  ),
  gates: record(
    shape({
      title: title(),
      at: needed(place()),
      size: needed(size()),
      state: oneOf(GATE_STATES),
      height: number(0.05, 50),
      muffles: number(0, 1000),
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
      kind: oneOf(THING_KINDS),
      at: needed(place()),
      noise: number(0, 100),
      harm: number(0, 1_000_000),
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
      post: name(),
      squad: name(),
      asleep: yup.boolean().oneOf([true]),
      overrides,
    }),
  ),
});
