import { HARM } from '../../../terms/senses.ts';
import { stopLegs } from '../../../motion/body.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { recordFor } from '../../state/record.ts';
import type { Surroundings } from '../../state/surroundings.ts';
import { leavePlace, leaveSlot } from '../game/booking.ts';
import { drop } from '../hands/hands.ts';
import { tellDirector } from '../telling/telling.ts';
import { noteDeath } from '../game/waves.ts';

/** Touch, harm and death. */

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
function feel(agent: AgentState, { what, of, thing, fromX, fromY, strength }: Blow): void {
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

/** Takes points of health, as many as there are; an agent with none left dies. A sleeping agent wakes. `by` is the agent that did it; −1 for none. */
export function harm(
  world: Surroundings,
  agent: AgentState,
  amount: number,
  by: number,
  blow: Blow,
): void {
  if (agent.isDead) return;
  agent.asleep = false;
  feel(agent, blow);
  // An agent without health can be hit and not be hurt.
  const { life } = agent;
  if (!(life.health > 0) || amount === 0) return;
  life.health = Math.max(0, life.health - amount);
  const name = world.agents[by]?.name ?? '';
  if (world.recorder)
    recordFor(agent, world.recorder, { kind: 'harm', amount, left: life.health, by: name });
  if (life.health === 0) die(world, agent, name);
}

/** A dead body lies where it fell. It decides nothing, and what it had taken is free for others. */
function die(world: Surroundings, agent: AgentState, by: string): void {
  agent.life.diedAt = world.tick;
  agent.asleep = true;
  agent.role = -1;
  stopLegs(agent.body);
  if (agent.carried >= 0) drop(world, agent);
  leavePlace(world, agent, false);
  leaveSlot(world, agent);
  if (world.recorder) recordFor(agent, world.recorder, { kind: 'death', by });
  if (agent.placed.away) noteDeath(world, agent);
  tellDirector(world, `died.${agent.archetype.name}`);
}

/** Metres between two bodies at which they begin to touch, and up to which they go on: bodies that lean on each other tremble. */
const TOUCH = 0.05;
const APART = 0.25;

/** One that comes against another, awake and no friend, is felt by it: once, for as long as they touch. `near` are the first `count` of the bodies about. */
export function feelTouch(
  world: Surroundings,
  agent: AgentState,
  near: readonly number[],
  count: number,
): void {
  // Most agents have no other agent nearby.
  if (agent.minds.length === 0 || (count < 2 && agent.life.touching < 0)) return;
  let touched = -1;
  for (let i = 0; i < count; i++) {
    const other = world.agents[near[i]];
    if (other === agent || other.asleep) continue;
    const isFelt = other.index === agent.life.touching;
    const gap = agent.awayFrom(other.x, other.y) - other.archetype.radius;
    if (gap > (isFelt ? APART : TOUCH) || agent.isFriendly(other.index)) continue;
    // An agent that is felt already goes before one that comes to it now.
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
