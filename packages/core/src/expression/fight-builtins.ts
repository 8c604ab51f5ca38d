import type { Builtin } from './builtins.ts';
import type { Facts } from './facts.ts';

/** Built-ins for fighting: what its own moves allow, and what others are seen to do. */

const agent = { name: 'agent', type: 'agent' } as const;
const move = { name: 'move', type: 'text', names: 'move' } as const;

/** What another agent does in a fight: as it is seen, or as it really is. */
function ofOpponents(inTruth: boolean): Builtin[] {
  const [prefix, does] = inTruth ? ['cheat.', 'really makes'] : ['', 'is seen to make'];
  const fightersOf = inTruth ? (f: Facts) => f.around : (f: Facts) => f.known;
  // The true state needs no eyes.
  const common = { ...(inTruth ? {} : { sense: 'sight' as const }), parameters: [agent] };
  return [
    {
      ...common,
      name: `${prefix}moveOf`,
      result: 'text',
      gives: 'move',
      about: `the name of the move the agent ${does}`,
      missing: null,
      read: (f, a) => fightersOf(f).moveOf(a),
    },
    {
      ...common,
      name: `${prefix}phaseOf`,
      result: 'text',
      about: "the part of that move it is in: 'windUp', 'active' or 'recovery'",
      missing: null,
      read: (f, a) => fightersOf(f).phaseOf(a),
    },
    {
      ...common,
      name: `${prefix}impactIn`,
      result: 'number',
      range: [0, Infinity],
      unit: 's',
      about: `seconds until what the agent ${inTruth ? 'really does or has sent off' : 'is seen to do or has sent off'} hits this body, if both go on as they do`,
      missing: null,
      missingWords: 'nothing where it can’t',
      read: (f, a) => f.here.impactIn(a, inTruth),
    },
    {
      ...common,
      name: `${prefix}guarding`,
      result: 'text',
      gives: 'guard',
      about: `the name of the guard the agent ${inTruth ? 'really holds' : 'is seen to hold'}`,
      missing: null,
      read: (f, a) => fightersOf(f).guardOf(a),
    },
    {
      ...common,
      name: `${prefix}healthOf`,
      result: 'number',
      range: [0, Infinity],
      about: `points of health the agent ${inTruth ? 'really has' : 'was last seen to have'}`,
      missing: null,
      read: (f, a) => fightersOf(f).healthOf(a),
    },
  ];
}

export const FIGHT_BUILTINS: readonly Builtin[] = [
  {
    name: 'self.healthShare',
    result: 'number',
    range: [0, 1],
    about: 'share of its health left, 0 to 1',
    missing: null,
    missingWords: 'nothing where it has no health',
    read: (f) => f.self.healthShare,
  },
  {
    name: 'self.lastResult',
    result: 'text',
    about:
      "the result of its last move: 'landed', 'guarded', 'parried', 'dodged', 'missed', 'walled' or 'broken'",
    missing: null,
    read: (f) => f.self.lastResult,
  },
  {
    name: 'sinceHit',
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds since a move hit this body',
    missing: null,
    read: (f) => f.self.sinceHit(),
  },
  {
    name: 'sinceLanded',
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds since a move of its own landed',
    missing: null,
    read: (f) => f.self.sinceLanded(),
  },
  {
    name: 'ready',
    parameters: [move],
    result: 'flag',
    about: 'whether the move can start now, or is running',
    missing: false,
    test: (f, a) => f.self.isReady(a),
  },
  {
    name: 'cooldownLeft',
    parameters: [move],
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: 'seconds until the move can be made again',
    missing: null,
    missingWords: 'nothing for a move it does not have',
    read: (f, a) => f.self.cooldownLeft(a),
  },
  {
    name: 'canReach',
    sense: 'sight',
    parameters: [move, agent],
    result: 'flag',
    about:
      'whether the move, begun now and facing the agent, would hit it, if both go on as they do; true while it is made',
    missing: false,
    test: (f, a, b) => f.here.canReach(a, b),
  },
  ...[false, true].flatMap(ofOpponents),
];
