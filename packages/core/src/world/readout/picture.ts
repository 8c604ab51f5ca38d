import { CHANNELS } from '../../terms/channels.ts';
import { SENSES } from '../../terms/senses.ts';
import type { Sense } from '../../model/documents.ts';
import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import { BODY_POINTS, clearShare, coneGain } from '../../senses/sight.ts';
import type { Agent } from '../agents/agent.ts';
import type { World } from '../world.ts';

const LEGS = CHANNELS.indexOf('legs');

/** Numbers a body takes in {@link pictureBodies}: x, y, heading, awareness, leaf state, speed, posture, what it carries (−1 for nothing). */
export const BODY_STRIDE = 8;
/** Numbers a ray takes in {@link pictureRays}: from x, y, to x, y, and how many points of the body are in plain view. */
export const RAY_STRIDE = 5;
/** Numbers a thing takes in {@link pictureThings}: x, y, height above the ground, the agent that carries it (−1 for none). */
export const THING_STRIDE = 4;

const UPRIGHT = 0;
export const CROUCHED = 1;
export const LYING = 2;
/** Lies, and is dead. */
export const DEAD = 3;
/** Not on the ground. */
export const AWAY = 4;

/** Index of the innermost active state (the last in document order) of one of its minds; −1 for none. */
export function leafState(agent: Agent, mind = 0): number {
  const { memory, minds } = agent;
  if (mind >= minds.length) return -1;
  const { active } = minds[mind].machine.cells;
  return memory[active] > 0 ? memory[active + memory[active]] : -1;
}

function postureOf({ asleep, isDead, crouched, away }: Agent): number {
  if (away) return AWAY;
  if (asleep) return isDead ? DEAD : LYING;
  return crouched ? CROUCHED : UPRIGHT;
}

/** All bodies for drawing, {@link BODY_STRIDE} numbers each. */
export function pictureBodies(world: World): Float32Array {
  const picture = new Float32Array(world.agents.length * BODY_STRIDE);
  world.agents.forEach((agent, i) => {
    const { x, y, heading, vx, vy } = agent.body;
    const posture = postureOf(agent);
    const speed = Math.sqrt(vx * vx + vy * vy);
    picture.set(
      [x, y, heading, agent.known.awarenessShown, leafState(agent), speed, posture, agent.carried],
      i * BODY_STRIDE,
    );
  });
  return picture;
}

const ALL_POINTS = BODY_POINTS.length;

/** With more agents on the ground than this they are not shown each by itself: one over the other their lines and cones would say nothing, and take far longer. */
export const MOST_APART = 60;

/**
 * The rays sight sends: one to each living body that a cone covers and that is no friend, up to where it hits.
 * Those of all agents, or where there are more than {@link MOST_APART} of the one with this name.
 */
export function pictureRays(world: World, watched: string | null): Float32Array {
  const { agents, statics, ground } = world;
  const rays: number[] = [];
  const there = agents.filter(({ away }) => !away);
  const lookers = there.length > MOST_APART ? there.filter(({ name }) => name === watched) : there;
  for (const agent of lookers) {
    const kind = statics.sights[agent.placed.archetype];
    if (!kind || agent.asleep || agent.resting) continue;
    const { x, y, heading } = agent.body;
    const count = ground.near(x, y, kind.reach, near);
    for (let i = 0; i < count; i++) {
      const other = agents[near[i]];
      if (other === agent || other.isDead || agent.isFriendly(other.index)) continue;
      const dx = other.x - x;
      const dy = other.y - y;
      const distance = Math.sqrt(dx * dx + dy * dy);
      const angle = wrapAngle(atan2(dy, dx) - heading);
      if (coneGain(kind, distance, angle) === 0) continue;
      const clear = clearShare(ground, agent, other, 1) * ALL_POINTS;
      const t = clear > 0 ? 1 : ground.castRay(x, y, other.x, other.y, 0, 0);
      rays.push(x, y, x + dx * t, y + dy * t, Math.round(clear));
    }
  }
  return Float32Array.from(rays);
}

const near: number[] = [];

/** All things for drawing, {@link THING_STRIDE} numbers each. */
export function pictureThings({ things }: World): Float32Array {
  return Float32Array.from(things.flatMap(({ x, y, z, carrier }) => [x, y, z, carrier]));
}

/** The forces of each body in m/s: x and y of each of the forces, in their order. */
export function pictureForces({ bodies }: World): Float32Array {
  return Float32Array.from(bodies.flatMap(({ forces }) => forces));
}

/** What one agent knows: where it believes others are, and what its other senses brought last. */
export interface KnownPicture {
  others: { agent: number; x: number; y: number; seen: boolean; awareness: number }[];
  percepts: { sense: Sense; what: string; x: number; y: number; age: number }[];
}

export function pictureKnown(world: World, name: string): KnownPicture | null {
  const agent = world.agents.find((candidate) => candidate.name === name);
  if (!agent) return null;
  return {
    others: agent.noticed.flatMap(({ of, x, y, visible, awareness }) =>
      x - x === 0 ? [{ agent: of, x, y, seen: visible, awareness }] : [],
    ),
    percepts: agent.percepts.flatMap((percept, sense) => {
      if (percept === null) return [];
      const { x, y, what } = percept;
      const age = agent.known.perceptAge(sense);
      return [{ sense: SENSES[sense], what: agent.program.texts[what], x, y, age }];
    }),
  };
}

/** Places that squads share out: those to be searched (and by which member), and those around a target. */
export interface SharedPicture {
  /** x, y, and −1 for free, −2 for done, else the agent on its way there. */
  searched: number[];
  /** x, y and the agent that has it. */
  booked: number[];
}

export function pictureShared(world: World): SharedPicture {
  return {
    searched: world.searches.flatMap(({ places, by }) =>
      by.flatMap((who, i) => [places[2 * i], places[2 * i + 1], who]),
    ),
    booked: world.slots.flatMap(({ agent }) => {
      const { goalX, goalY } = world.bodies[agent];
      return goalX - goalX === 0 ? [goalX, goalY, agent] : [];
    }),
  };
}

/** The agent that a player drives now; −1 for none. */
export function playedAgent(world: World): number {
  return world.agents.findIndex(({ isPlayed }) => isPlayed);
}

/** What is left of an agent's way. */
export interface PathPicture {
  agent: number;
  /** x, y pairs from where it stands. */
  points: number[];
  /** Seconds since its legs were set going, and what did it. */
  age: number;
  by: string;
}

export function picturePaths(world: World): PathPicture[] {
  return world.agents.flatMap((agent) => {
    const { index, body, tick, ticksPerSecond } = agent;
    if (body.path.length === 0) return [];
    const points = [body.x, body.y, ...body.path.slice(body.pathAt)];
    const age = (tick - body.goalTick) / ticksPerSecond;
    return [{ agent: index, points, age, by: actionOn(agent, LEGS) }];
  });
}

/** The action that has a channel, by name; empty for none. */
export function actionOn(agent: Agent, channel: number): string {
  if (!agent.stack) return '';
  const owner = agent.owner(channel);
  for (const { machine } of agent.stack.minds) {
    const name = machine.actions.get(owner);
    if (name !== undefined) return name;
  }
  return '';
}
