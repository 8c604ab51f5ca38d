import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BUILTINS, type Builtin, type ParameterType } from '../expression/builtins.ts';
import { duel, SWEEP } from './mechanics/fighting/fighting.fixture.ts';
import { programOf } from '../testing/orchard.fixture.ts';
import type { Agent } from './agents/agent.ts';
import { tick } from './phases/tick.ts';
import { createWorld, type World } from './world.ts';

/**
 * All agents decide on the same facts: who is asked first, which is a matter of names, decides nothing. Six
 * agents, two of a squad among them, do in one tick what others ask about in that tick.
 */

const TICKS = 60;

/** What each agent, by its place in this list, does in its decisions. */
const DOINGS: readonly ((agent: Agent, others: readonly Agent[], at: number) => void)[] = [
  (agent, [, , , foe], at) => {
    if (at === 10) agent.strike(wordOf(agent, 'sweep'), foe.index, 0);
    if (at === 25) agent.breakOff();
  },
  (agent, _, at) => {
    if (at === 10) agent.raiseGuard(agent.archetype.guards[0].word);
    if (at === 30) agent.lowerGuard();
  },
  (agent, _, at) => {
    if (at === 10 || at === 40) agent.goTo(...SPOT, 0.1, true);
    if (at === 30) agent.stopLegs();
  },
  (agent, [, foe], at) => {
    if (at === 10) agent.strike(wordOf(agent, 'pot'), foe.index, 0);
  },
  (agent, _, at) => {
    if (at === 20) agent.goTo(...SPOT, 0.1, true);
    if (at === 35) agent.goTo(...OTHER, 0.1, true);
  },
  () => {},
];

const SPOT: [number, number] = [10, 2];
const OTHER: [number, number] = [16, 2];

const wordOf = (agent: Agent, name: string) =>
  agent.archetype.moves.find((move) => move.name === name)!.word;

/** Side and place of each. */
const PLACED: readonly ['keeper' | 'warden', [number, number]][] = [
  ['keeper', [5, 5]],
  ['keeper', [6, 8]],
  ['keeper', [7, 2]],
  ['warden', [6.4, 5.2]],
  ['keeper', [13, 3]],
  ['warden', [15, 8]],
];

/** The run with these names for the agents. */
function worldWith(names: readonly string[]): World {
  const document = duel({
    moves: { sweep: SWEEP, pot: { kind: 'thrown', windUp: 0.1, active: 0.3, reach: 9, speed: 5 } },
    guards: { high: {} },
    change: (document) => {
      const { archetypes } = document;
      const { corner } = document.grounds;
      corner.agents = Object.fromEntries(
        PLACED.map(([archetype, at], i) => [names[i], { archetype, at, heading: i * 40 }]),
      );
      corner.things = { pear: { at: [12, 8] } };
      corner.zones = { grass: { at: [4, 4], size: [4, 4] } };
      document.squads = { rounds: { title: 'Rounds' } };
      for (const kind of [archetypes.keeper, archetypes.warden]) {
        kind.squad = kind === archetypes.keeper ? 'rounds' : undefined;
        kind.sight = { ...kind.sight!, cones: [{ range: 30, halfAngle: 180, gain: 30 }] };
        kind.hearing = { threshold: 0.01 };
      }
    },
  });
  return createWorld(programOf(document), 1);
}

/** Values to ask a parameter with; null where it takes more than a value of its own. */
function argumentsFor(type: ParameterType, agent: Agent, others: readonly Agent[]) {
  switch (type) {
    case 'agent':
      return others.map(({ index }) => [index]);
    case 'point':
      return [SPOT, OTHER, [6, 5]];
    case 'text':
      return ['sweep', 'pot'].map((name) => [wordOf(agent, name)]);
    case 'number':
      return [[1]];
    case 'thing':
    case 'zone':
      return [[0]];
    default:
      return null;
  }
}

/** Everything an agent can ask for with plain values, as text. */
function answers(agent: Agent, others: readonly Agent[], world: World): string[] {
  const { texts } = world.statics.program;
  const said = (value: number | boolean, { result }: Builtin) => {
    if (result === 'agent') return String(others.findIndex(({ index }) => index === value));
    return result === 'text' ? (texts[Number(value)] ?? '') : String(value);
  };
  return BUILTINS.filter(({ ownWay, variadic }) => !ownWay && !variadic).flatMap((builtin) => {
    let calls: number[][] = [[]];
    for (const { type } of builtin.parameters ?? []) {
      const values = argumentsFor(type, agent, others);
      calls = values ? calls.flatMap((call) => values.map((value) => [...call, ...value])) : [];
    }
    const asks = [builtin.read, builtin.test, builtin.x, builtin.y].flatMap((ask) => ask ?? []);
    return calls.flatMap((call) =>
      asks.map((ask) => `${builtin.name}(${call.length}) ${said(ask(agent, ...call), builtin)}`),
    );
  });
}

/** By tick and agent: what it could ask for when it decided. */
function run(names: readonly string[]): string[][][] {
  const world = worldWith(names);
  const agents = names.map((name) => world.agents.find((each) => each.name === name)!);
  const told: string[][][] = [];
  world.decideFor = (agent) => {
    const who = agents.indexOf(agent as Agent);
    DOINGS[who](agent, agents, world.tick);
    told[world.tick][who] = answers(agent, agents, world);
  };
  for (let at = 1; at <= TICKS; at++) {
    told[at] = [];
    tick(world);
  }
  return told;
}

describe('what an agent can ask for', () => {
  const NAMES = ['a', 'b', 'c', 'd', 'e', 'f'];
  const plain = run(NAMES);

  it('is known for every built-in that takes plain values', () => {
    const asked = new Set(plain[30][0].map((line) => line.split('(')[0]));
    for (const name of ['isFree', 'cheat.moveOf', 'cheat.guarding', 'impactIn', 'canReach'])
      expect(asked).toContain(name);
    expect(asked.size).toBeGreaterThan(60);
    // What is asked about does happen.
    const all = new Set(plain.flat(2));
    for (const line of [
      'cheat.moveOf(1) sweep',
      'cheat.guarding(1) high',
      'isFree(2) false',
      'isFree(2) true',
      'moveOf(1) pot',
    ])
      expect(all).toContain(line);
  });

  it('is the same whatever the agents are called', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(NAMES, { minLength: 6 }), (names) => {
        const other = run(names);
        for (let at = 1; at <= TICKS; at++)
          for (let who = 0; who < 6; who++) {
            // Named one by one, so that a failure says which.
            const differ = other[at][who].filter((line, i) => line !== plain[at][who][i]);
            expect([at, who, differ]).toEqual([at, who, []]);
          }
      }),
      { numRuns: 12, examples: [[['f', 'e', 'd', 'c', 'b', 'a']]] },
    );
  });
});
