import { distance } from '../numeric/distance.ts';
import { LEGS_MOVING } from '../motion/legs.ts';
import { isCandidateKey } from '../mind/memory.ts';
import type { Agent } from '../world/agents/agent.ts';
import { counter, isLook, lasting, ticksOf, type Detector } from './detector.ts';

/** What is noticed of bodies. */

/** Bodies this near to each other press, in metres. */
const TOUCH = 0.05;
/** A body slower than this goes nowhere, in m/s. */
const SLOW = 0.1;
/** A body that has come this far meanwhile gets on, however it turns, in metres. */
const GETS_ON = 1;

const near: number[] = [];

function stands({ asleep, resting }: Agent): boolean {
  return !asleep && !resting;
}

/** Several bodies that press on each other. */
export function crowding(): Detector {
  const lasts = lasting();
  return (moment) => {
    const { world, limits, report } = moment;
    if (!isLook(moment)) return;
    const { agents, ground } = world;
    for (const agent of agents) {
      const { radius } = agent.archetype;
      const count = ground.near(agent.x, agent.y, 2 * radius + 1, near);
      const touched: string[] = [];
      for (let i = 0; i < count && stands(agent); i++) {
        const other = agents[near[i]];
        if (other === agent || !stands(other)) continue;
        const apart =
          distance(agent.x, agent.y, other.x, other.y) - radius - other.archetype.radius;
        if (apart < TOUCH) touched.push(other.placed.title);
      }
      const holds = touched.length + 1 >= limits.crowds;
      if (!lasts(agent.name, world.tick, holds, ticksOf(moment, limits.crowdsFor))) continue;
      report({
        kind: 'crowding',
        agent: agent.name,
        key: '',
        message: `At (${agent.x.toFixed(1)}, ${agent.y.toFixed(1)}) it presses on ${touched.join(', ')} for ${limits.crowdsFor} s.`,
      });
    }
  };
}

/** A body that turns back and forth on the spot. */
export function jitter(): Detector {
  const count = counter();
  /** Which way each went in the look before, and where it was when it turned first. */
  const ways = new Map<string, { vx: number; vy: number }>();
  const began = new Map<string, { x: number; y: number; tick: number }>();
  return (moment) => {
    const { world, limits, report } = moment;
    if (!isLook(moment)) return;
    const within = ticksOf(moment, limits.jittersWithin);
    for (const agent of world.agents) {
      const { name, body } = agent;
      const { vx, vy, x, y } = body;
      if (agent.isPlayed || !stands(agent) || vx * vx + vy * vy < SLOW * SLOW) continue;
      const before = ways.get(name);
      ways.set(name, { vx, vy });
      if (!before || before.vx * vx + before.vy * vy >= 0) continue;
      const first = began.get(name);
      if (!first || world.tick - first.tick > within) began.set(name, { x, y, tick: world.tick });
      if (!count(name, world.tick, { times: limits.jitters, within })) continue;
      const from = began.get(name)!;
      if (distance(x, y, from.x, from.y) > GETS_ON) continue;
      report({
        kind: 'jitter',
        agent: name,
        key: '',
        message: `At (${x.toFixed(1)}, ${y.toFixed(1)}) it turned back ${limits.jitters} times in ${limits.jittersWithin} s.`,
      });
    }
  };
}

/** A goal counts as that of a place of memory which is this near, in metres. */
const SAME_PLACE = 0.05;
/** What it attends to is elsewhere from this far on, in metres. */
const ELSEWHERE = 3;
/** It knows better where it is sure of what it attends to. */
const SURE = 0.5;

/** The key of memory that holds where its body goes, with the tick it was written in; null for none. */
function keyOfGoal(agent: Agent): { name: string; written: number } | null {
  const { goalX, goalY } = agent.body;
  for (const key of agent.stack!.program.keys) {
    if (key.type !== 'point' || key.capacity > 0 || isCandidateKey(key)) continue;
    const cells = agent.cellsOf(key);
    const away = distance(cells[key.slot], cells[key.slot + 1], goalX, goalY);
    if (away < SAME_PLACE) return { name: key.name, written: cells[key.stamp] };
  }
  return null;
}

/** A body that walks to a place it remembers, while it knows better where to go. */
export function oldGoal(): Detector {
  const lasts = lasting();
  return (moment) => {
    const { world, limits, report } = moment;
    if (!isLook(moment)) return;
    const long = ticksOf(moment, limits.oldFor);
    for (const agent of world.agents) {
      const { name, body, known } = agent;
      const { attentionX, attentionY, attentionStrength } = known;
      const walks = agent.stack !== null && body.legs === LEGS_MOVING && !agent.isPlayed;
      const away = walks ? distance(attentionX, attentionY, body.goalX, body.goalY) : 0;
      const key = away > ELSEWHERE && attentionStrength > SURE ? keyOfGoal(agent) : null;
      const isOld = key !== null && world.tick - key.written > long;
      if (!lasts(name, world.tick, isOld, long)) continue;
      const age = ((world.tick - key!.written) / agent.ticksPerSecond).toFixed(1);
      report({
        kind: 'oldGoal',
        agent: name,
        key: key!.name,
        message: `It walks to ${key!.name}, which was written ${age} s ago; what it attends to is ${away.toFixed(1)} m from there.`,
      });
    }
  };
}
