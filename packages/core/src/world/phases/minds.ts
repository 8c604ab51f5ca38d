import { decide } from '../../mind/machine/mind.ts';
import type { Agent } from '../agents/agent.ts';
import { fileClaims } from '../state/claims.ts';
import type { World } from '../world.ts';

/** Every agent decides on the same facts: what minds do to the world shows only after all have decided. */
export function decideAll(world: World): void {
  const { agents, statics, claims } = world;
  if (statics.inSquads.length > 0) fileClaims(claims, agents, statics);
  claims.isFiled = true;
  world.isDeciding = true;
  try {
    decideEach(world);
  } finally {
    world.isDeciding = false;
    claims.isFiled = false;
  }
}

function decideEach(world: World): void {
  const { agents, decideFor, statics } = world;
  for (let i = 0; i < agents.length; i++) {
    const agent = agents[i];
    world.acting = i;
    if (agent.minds.length === 0 || i === statics.program.director.agent) continue;
    if (agent.isPlayed || agent.asleep || agent.resting) dropEvents(agent);
    else if (decideFor) {
      decideFor(agent, agent.inboxes[0]);
      dropEvents(agent);
    } else decideOne(agent);
  }
}

/** All minds of one agent. */
export function decideOne(agent: Agent): void {
  if (agent.hasEvents || agent.minds.length > 1) stepEachMind(agent);
  else decide(agent.minds[0], agent, NO_EVENTS, agent.stagger);
}

const NO_EVENTS: readonly string[] = [];

function dropEvents(agent: Agent): void {
  if (!agent.hasEvents) return;
  for (const inbox of agent.inboxes) inbox.length = 0;
  agent.hasEvents = false;
}

/** So many events wait for a mind at most: minds that raise more than they take would never come to an end. */
export const MOST_WAITING_EVENTS = 1024;

function stepEachMind(agent: Agent): void {
  const { minds, inboxes, recorders } = agent;
  // Events raised while they decide are for their next decisions.
  const waiting = inboxes.map((inbox) => inbox.slice());
  for (let mind = 0; mind < minds.length; mind++) {
    if (recorders !== null) agent.recorder = recorders[mind];
    const events = waiting[mind];
    inboxes[mind].splice(0, decide(minds[mind], agent, events, agent.stagger));
    const tooMany = inboxes[mind].length - MOST_WAITING_EVENTS;
    if (tooMany <= 0) continue;
    inboxes[mind].length = MOST_WAITING_EVENTS;
    agent.recorder?.dropped(tooMany);
  }
  agent.hasEvents = inboxes.some((inbox) => inbox.length > 0);
}
