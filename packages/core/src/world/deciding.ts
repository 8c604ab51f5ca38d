import { decide } from '../mind/mind.ts';
import { sharesAlone, type Agent, type SharedWrite } from './agent.ts';
import { isPlayed } from './input.ts';
import { isInReach } from './messages.ts';
import type { World } from './world.ts';

/** Every agent decides on the same facts: what minds do to the world shows only after all have decided. */
export function stepMinds(world: World): void {
  const { agents, decideFor } = world;
  for (let i = 0; i < agents.length; i++) {
    const agent = agents[i];
    if (agent.minds.length === 0) continue;
    if (isPlayed(agent) || agent.asleep || agent.resting) dropEvents(agent);
    else if (decideFor) {
      decideFor(agent, agent.inboxes[0]);
      dropEvents(agent);
    } else if (agent.hasEvents || agent.minds.length > 1) stepEachMind(agent);
    else decide(agent.minds[0], agent, NO_EVENTS, agent.stagger);
  }
  if (world.outbox.length > 0) applyWrites(world);
  if (world.effects.length > 0) doEffects(world);
}

/** What minds do to the world, in agent order. */
function doEffects({ effects }: World): void {
  for (const effect of effects) effect();
  effects.length = 0;
}

const NO_EVENTS: readonly string[] = [];

function dropEvents(agent: Agent): void {
  if (!agent.hasEvents) return;
  for (const inbox of agent.inboxes) inbox.length = 0;
  agent.hasEvents = false;
}

function stepEachMind(agent: Agent): void {
  const { minds, inboxes, recorders } = agent;
  // Events raised while they decide are for their next decisions.
  const waiting = inboxes.map((inbox) => inbox.slice());
  for (let mind = 0; mind < minds.length; mind++) {
    if (recorders !== null) agent.recorder = recorders[mind];
    const events = waiting[mind];
    if (decide(minds[mind], agent, events, agent.stagger)) inboxes[mind].splice(0, events.length);
  }
  agent.hasEvents = inboxes.some((inbox) => inbox.length > 0);
}

/** Writes to shared memory, in agent order. Where two write one key in a tick the later stays, and the ledger says so. */
function applyWrites(world: World): void {
  const { outbox, recorder, tick: now } = world;
  const writers = new Map<string, Agent>();
  for (const write of outbox) {
    const { agent } = write;
    if (!agent.apply(write)) continue;
    shareWrite(write);
    agent.recorders?.[0].remembered(write.key);
    if (!recorder || write.how === 'add') continue;
    const { name, scope } = agent.stack!.program.keys[write.key];
    const id = `${name} ${scope === 'squad' ? agent.placed.squad : ''}`;
    const before = writers.get(id);
    if (before && before !== agent)
      recorder({ tick: now, agent: agent.name, kind: 'overwrote', key: name, of: before.name });
    writers.set(id, agent);
  }
  outbox.length = 0;
}

/** In a squad whose words carry only so far, a write reaches the members in reach of the writer now. */
function shareWrite(write: SharedWrite): void {
  const { agent } = write;
  if (agent.stack!.program.keys[write.key].scope !== 'squad' || !sharesAlone(agent)) return;
  for (const mate of agent.mates()) {
    if (!isInReach(agent, mate)) continue;
    agent.applyTo(mate.squadMemory, write);
  }
}
