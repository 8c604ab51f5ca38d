import { createBody, stopLegs } from '../motion/body.ts';
import { nextRandom } from '../numeric/random.ts';
import { HARM } from '../senses/percept.ts';
import { circleBlocked } from '../space/walls.ts';
import type { Agent } from './agent.ts';
import { attend } from './attention.ts';
import { leavePlace, leaveSlot } from './booking.ts';
import { drop } from './hands.ts';
import { isPlayed } from './input.ts';
import { recordFor } from './record-agent.ts';
import type { World } from './world.ts';

/** Touch, harm, death, and beginning anew after it. */

/** What comes at a body, and what it tells of where from. */
export interface Blow {
  /** Index of the word for it. */
  what: number;
  /** Who it is felt to be; −1 where that can't be felt. */
  of: number;
  thing: number;
  fromX: number;
  fromY: number;
  /** 0 to 1. */
  strength: number;
}

/** A body feels where something comes from, not how far off that is: the percept lies one metre away, and is noticed in the next tick. */
export function feel(agent: Agent, { what, of, thing, fromX, fromY, strength }: Blow): void {
  const dx = fromX - agent.x;
  const dy = fromY - agent.y;
  const away = Math.sqrt(dx * dx + dy * dy) || 1;
  const tick = agent.tick + 1;
  agent.arriving.push({
    due: tick,
    percept: {
      sense: HARM,
      what,
      of,
      thing,
      x: agent.x + dx / away,
      y: agent.y + dy / away,
      strength,
      tick,
    },
  });
}

/** Takes points of health, as many as there are; who has none left dies. Whoever slept is awake. `by` is who did it; −1 for nobody. */
export function harm(world: World, agent: Agent, amount: number, by: number, blow: Blow): void {
  if (agent.isDead) return;
  agent.asleep = false;
  feel(agent, blow);
  // Who has no health can be hit and not be hurt.
  if (!(agent.health > 0) || amount === 0) return;
  agent.life.health = Math.max(0, agent.health - amount);
  const name = world.agents[by]?.name ?? '';
  if (world.recorder)
    recordFor(agent, world.recorder, { kind: 'harm', amount, left: agent.health, by: name });
  if (agent.health === 0) die(world, agent, name);
}

/** A dead body lies where it fell. It decides nothing, and what it had taken is free for others. */
function die(world: World, agent: Agent, by: string): void {
  agent.life.diedAt = world.tick;
  agent.asleep = true;
  agent.role = -1;
  stopLegs(agent.body);
  if (agent.carried >= 0) drop(world, agent);
  leavePlace(world, agent, false);
  leaveSlot(world, agent);
  if (world.recorder) recordFor(agent, world.recorder, { kind: 'death', by });
}

/** Those who are dead for long enough begin anew, where there is room: at a spawn place, or where they were placed if the ground has none. */
export function recycle(world: World): void {
  const { someRecycle, program } = world.statics;
  if (!someRecycle) return;
  for (const agent of world.agents) {
    const { recycleTicks } = agent.archetype;
    if (!agent.isDead || recycleTicks === 0 || world.tick - agent.life.diedAt < recycleTicks)
      continue;
    const { spawns } = program.ground;
    const places = (spawns.length > 0 ? spawns : [agent.placed]).filter(({ x, y }) =>
      hasRoom(world, agent, x, y),
    );
    if (places.length === 0) continue;
    const { x, y, heading } = places[Math.floor(nextRandom(agent.stream) * places.length)];
    beginAnew(world, agent, x, y, heading);
  }
}

function hasRoom({ walls, agents }: World, agent: Agent, x: number, y: number): boolean {
  if (circleBlocked(walls, x, y, agent.archetype.radius)) return false;
  return agents.every(
    (other) => other === agent || other.awayFrom(x, y) >= agent.archetype.radius || other.isDead,
  );
}

/** As at the start of the run, elsewhere: nothing is remembered, known or on its way. Whoever is played stays so. */
function beginAnew(world: World, agent: Agent, x: number, y: number, heading: number): void {
  const { archetype, body } = agent;
  const played = isPlayed(agent);
  Object.assign(body, createBody(x, y, heading, archetype.paces[archetype.gait]));
  if (played) Object.assign(body, { steerX: 0, steerY: 0 });
  agent.gait = archetype.gait;
  agent.asleep = false;
  agent.life = { health: archetype.health, diedAt: -1, touching: -1 };
  agent.refused = '';
  if (agent.stack) agent.memory.set(agent.stack.initial);
  agent.inboxes = agent.minds.map(() => []);
  agent.hasEvents = false;
  agent.tracks = [];
  agent.noticed = agent.tracks;
  agent.late = [];
  agent.arriving = [];
  agent.percepts.fill(null);
  agent.perceived = 0;
  attend(agent);
  // Its body can be found again, should it come to that.
  for (const items of world.found) items[agent.index] = 0;
  if (world.recorder) recordFor(agent, world.recorder, { kind: 'recycled', x, y });
}

/** Metres between two bodies at which they begin to touch, and up to which they go on: bodies that lean on each other tremble. */
const TOUCH = 0.05;
const APART = 0.25;

/** One that comes against another, awake and no friend, is felt by it: once, for as long as they touch. `near` are the first `count` of the bodies about. */
export function feelTouch(
  world: World,
  agent: Agent,
  near: readonly number[],
  count: number,
): void {
  // Most agents have nobody about but themselves.
  if (agent.minds.length === 0 || (count < 2 && agent.life.touching < 0)) return;
  let touched = -1;
  for (let i = 0; i < count; i++) {
    const other = world.agents[near[i]];
    if (other === agent || other.asleep) continue;
    const isFelt = other.index === agent.life.touching;
    const gap = agent.awayFrom(other.x, other.y) - other.archetype.radius;
    if (gap > (isFelt ? APART : TOUCH) || agent.isFriendly(other.index)) continue;
    // Who is felt already goes before who comes to it now.
    if (touched < 0 || isFelt) touched = other.index;
  }
  if (touched === agent.life.touching) return;
  agent.life.touching = touched;
  if (touched < 0) return;
  const { x, y } = world.agents[touched];
  const { touch } = world.statics.words;
  feel(agent, {
    what: touch,
    of: touched,
    thing: -1,
    fromX: x,
    fromY: y,
    strength: TOUCH_STRENGTH,
  });
}

const TOUCH_STRENGTH = 0.6;
