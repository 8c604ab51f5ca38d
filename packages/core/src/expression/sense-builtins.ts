import { distance } from '../numeric/distance.ts';
import { atan2, degrees, wrapAngle } from '../numeric/trigonometry.ts';
import { FOUND, HARM, HEARING, SENSES, TOLD } from '../terms/senses.ts';
import type { Builtin } from './builtins.ts';
import type { Facts, PerceptFacts } from './facts.ts';

/** Built-ins for what the senses brought besides sight, and for what is true whatever the senses say. */

/** A number out of the percept of one sense; `missing` where there is none. */
function of(
  sense: number,
  part: (percept: PerceptFacts) => number,
  missing: number,
): (facts: Facts) => number {
  return (facts) => {
    const percept = facts.known.percept(sense);
    return percept === null ? missing : part(percept);
  };
}

function place(name: string, sense: number, about: string): Builtin {
  return {
    name: `${name}.place`,
    sense: SENSES[sense],
    result: 'point',
    about,
    missing: null,
    x: of(sense, ({ x }) => x, NaN),
    y: of(sense, ({ y }) => y, NaN),
  };
}

function kind(name: string, sense: number, about: string): Builtin {
  return {
    name: `${name}.kind`,
    sense: SENSES[sense],
    result: 'text',
    about,
    missing: null,
    read: of(sense, ({ what }) => what, -1),
  };
}

function age(name: string, sense: number): Builtin {
  return {
    name: `${name}.age`,
    sense: SENSES[sense],
    result: 'number',
    range: [0, Infinity],
    unit: 's',
    about: `seconds since then; nothing after 4 s`,
    missing: null,
    read: (f) => f.known.perceptAge(sense),
  };
}

function agentOf(name: string, field: string, sense: number, about: string): Builtin {
  return {
    name: `${name}.${field}`,
    sense: SENSES[sense],
    result: 'agent',
    about,
    missing: null,
    read: of(sense, (percept) => percept.of, -1),
  };
}

const agent = { name: 'agent', type: 'agent' } as const;

export const SENSE_BUILTINS: readonly Builtin[] = [
  place('heard', HEARING, 'where the last noise seemed to come from'),
  kind(
    'heard',
    HEARING,
    "what was heard: 'step', 'landing', 'gate', or the kind a noise was made as",
  ),
  {
    name: 'heard.loudness',
    sense: 'hearing',
    result: 'number',
    range: [0, 1],
    about: 'how loud the last noise arrived, 0 to 1',
    missing: 0,
    read: of(HEARING, ({ strength }) => strength, 0),
  },
  age('heard', HEARING),
  {
    name: 'harmed.bearing',
    sense: 'harm',
    result: 'number',
    range: [-180, 180],
    unit: 'deg',
    about: 'angle from the heading to where the last hit or touch came from, −180 to 180',
    missing: null,
    read: (f) => {
      const percept = f.known.percept(HARM);
      if (percept === null) return NaN;
      return degrees(wrapAngle(atan2(percept.y - f.here.y, percept.x - f.here.x) - f.self.heading));
    },
  },
  kind('harmed', HARM, "what was felt: 'hit' by a thing, or the 'touch' of a body"),
  agentOf('harmed', 'of', HARM, 'the agent whose touch was felt; a hit does not tell'),
  age('harmed', HARM),
  place('found', FOUND, 'where the last thing found is; for one in flight, where it came from'),
  kind('found', FOUND, "what was found: 'body', 'thing', 'gate' or 'flight'"),
  agentOf('found', 'of', FOUND, 'whose body was found'),
  {
    name: 'found.thing',
    sense: 'found',
    result: 'thing',
    about: 'the thing that was found out of its place, or in flight',
    missing: null,
    read: of(FOUND, ({ thing }) => thing, -1),
  },
  age('found', FOUND),
  place('told', TOLD, 'the place the squad was told of last'),
  kind('told', TOLD, 'what it was told, in the words of the teller'),
  agentOf('told', 'of', TOLD, 'the agent the squad was told of last'),
  age('told', TOLD),
  {
    name: 'hostile',
    parameters: [agent],
    result: 'flag',
    about: 'whether this agent’s faction is hostile to the other’s',
    missing: false,
    test: (f, a) => f.self.isHostile(a),
  },
  {
    name: 'isOpen',
    parameters: [{ name: 'gate', type: 'gate' }],
    result: 'flag',
    about: 'whether the gate is open',
    test: (f, gate) => f.around.isOpen(gate),
  },
  {
    name: 'inZone',
    parameters: [{ name: 'zone', type: 'zone' }],
    result: 'flag',
    about: 'whether this body is in the zone',
    test: (f, zone) => f.here.inZone(zone),
  },
  {
    name: 'ahead',
    parameters: [agent, { name: 'seconds', type: 'number', unit: 's' }],
    sense: 'sight',
    result: 'point',
    about: 'where the agent will be by then, if it goes on as it was last seen to go',
    missing: null,
    x: (f, a, seconds) => f.known.x(a) + f.known.speedX(a) * seconds,
    y: (f, a, seconds) => f.known.y(a) + f.known.speedY(a) * seconds,
  },
  {
    name: 'between',
    parameters: [
      { name: 'from', type: 'point' },
      { name: 'to', type: 'point' },
      { name: 'share', type: 'number' },
    ],
    result: 'point',
    about: 'a point on the straight line between two points: 0 is the first, 1 the second',
    missing: null,
    x: (_, fromX, _fromY, toX, _toY, share) => fromX + (toX - fromX) * share,
    y: (_, _fromX, fromY, _toX, toY, share) => fromY + (toY - fromY) * share,
  },
  {
    name: 'middleOf',
    parameters: [{ name: 'zone', type: 'zone' }],
    result: 'point',
    about: 'the middle of the zone',
    x: (f, zone) => f.around.zoneX(zone),
    y: (f, zone) => f.around.zoneY(zone),
  },
  {
    name: 'isFree',
    parameters: [{ name: 'point', type: 'point' }],
    result: 'flag',
    about:
      'whether no squad mate stands within 0.8 m of the point, or has been on its way there for longer',
    missing: true,
    test: (f, x, y) => f.self.isFree(x, y),
  },
  {
    name: 'cheat.place',
    parameters: [agent],
    result: 'point',
    about: 'where the agent really is, perceived or not',
    missing: null,
    x: (f, a) => f.around.x(a),
    y: (f, a) => f.around.y(a),
  },
  {
    name: 'weightOf',
    parameters: [{ name: 'thing', type: 'thing' }],
    result: 'number',
    range: [0, Infinity],
    about: 'kilograms of the thing, judged by its size',
    missing: null,
    read: (f, thing) => f.around.thingWeight(thing),
  },
  {
    name: 'cheat.place',
    parameters: [{ name: 'thing', type: 'thing' }],
    result: 'point',
    about: 'where the thing really is, perceived or not',
    missing: null,
    x: (f, thing) => f.around.thingX(thing),
    y: (f, thing) => f.around.thingY(thing),
  },
  {
    name: 'cheat.distance',
    parameters: [agent],
    result: 'number',
    range: [0, Infinity],
    unit: 'm',
    about: 'metres to where the agent really is',
    missing: null,
    read: (f, a) => distance(f.around.x(a), f.around.y(a), f.here.x, f.here.y),
  },
];
