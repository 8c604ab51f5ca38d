import type { Builtin } from './builtins.ts';

/** Built-ins for the game around those on a ground. What is true of everybody is the director's to ask. */

const group = { name: 'whom', type: 'text', names: 'group' } as const;
const zone = { name: 'zone', type: 'zone' } as const;

export const GAME_BUILTINS: readonly Builtin[] = [
  {
    name: 'mode',
    result: 'text',
    about: 'the mode that holds now, by the schedule or as the director has set it',
    missing: 'no text',
    read: (f) => f.game.mode(),
  },
  {
    name: 'timeLeft',
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds until the mode that holds now is over',
    missing: 'nothing where it does not end by itself',
    read: (f) => f.game.timeLeft(),
  },
  {
    name: 'score',
    parameters: [{ name: 'score', type: 'text', names: 'score' }],
    result: 'number',
    about: 'the points of a score of the ground',
    missing: 'nothing',
    read: (f, word) => f.game.score(word),
  },
  {
    name: 'self.home',
    result: 'point',
    about: 'the middle of the zone this agent belongs to',
    missing: 'nothing for who has no home',
    x: (f) => f.homeX,
    y: (f) => f.homeY,
  },
  {
    name: 'strayed',
    parameters: [{ name: 'metres', type: 'number', unit: 'm' }],
    result: 'flag',
    about: 'whether this body is farther than that outside of its home',
    missing: 'false for who has no home',
    test: (f, metres) => f.fromHome() > metres,
  },
  {
    name: 'players',
    directorOnly: true,
    result: 'number',
    range: [0, Infinity],
    about: 'how many that are played live on the ground',
    read: (f) => f.game.players(),
  },
  {
    name: 'alive',
    directorOnly: true,
    parameters: [group],
    result: 'number',
    range: [0, Infinity],
    about: 'how many of an archetype, faction, squad or wave live on the ground',
    read: (f, word) => f.game.alive(word),
  },
  {
    name: 'toCome',
    directorOnly: true,
    parameters: [{ name: 'wave', type: 'text', names: 'wave' }],
    result: 'number',
    range: [0, Infinity],
    about: 'how many of a wave are still to come this time',
    read: (f, word) => f.game.toCome(word),
  },
  {
    name: 'inZone',
    directorOnly: true,
    parameters: [zone, group],
    result: 'number',
    range: [0, Infinity],
    about: 'how many of an archetype, faction, squad or wave live in the zone',
    read: (f, where, word) => f.game.inZone(where, word),
  },
  {
    name: 'thingsIn',
    directorOnly: true,
    parameters: [zone],
    result: 'number',
    range: [0, Infinity],
    about: 'how many things lie in the zone',
    read: (f, where) => f.game.thingsIn(where),
  },
  {
    name: 'weightIn',
    directorOnly: true,
    parameters: [zone],
    result: 'number',
    range: [0, Infinity],
    about: 'kilograms of the things that lie in the zone',
    read: (f, where) => f.game.weightIn(where),
  },
];
