import { transplantMachine, type Transplant } from '../mind/machine/transplant.ts';
import { addToKey, entryWidth, writeKey } from '../mind/memory.ts';
import type { KeyProgram } from '../mind/program.ts';
import { CHANNELS } from '../mind/channels.ts';
import { copyBody, stopLegs } from '../motion/body.ts';
import type { Percept } from '../senses/percept.ts';
import type { Track } from '../senses/sight.ts';
import { circleBlocked } from '../space/walls.ts';
import { sharesAlone, type Agent } from './agent.ts';
import { attend, take } from './attention.ts';
import { settleGates } from './gates.ts';
import type { Program } from './program.ts';
import type { Recorder } from './recorder.ts';
import { recordFor } from './record-agent.ts';
import { createStatics } from './statics.ts';
import { createWorld, setRecorder, type World } from './world.ts';

function carryBody(old: Agent, agent: Agent): void {
  const { body } = agent;
  const { pace } = body;
  Object.assign(body, copyBody(old.body), { pace });
  const gait = agent.program.gaits.indexOf(old.program.gaits[old.gait]);
  if (gait >= 0 && !Number.isNaN(agent.archetype.paces[gait])) agent.setGait(gait);
  if (circleBlocked(agent.surroundings.walls, body.x, body.y, agent.archetype.radius)) {
    body.x = agent.placed.x;
    body.y = agent.placed.y;
    stopLegs(body);
  }
}

/** An edit of the archetype's health changes what is left by as much. */
function carryHealth(old: Agent, agent: Agent, names: Renaming): void {
  const [was, is] = [old.archetype.health, agent.archetype.health];
  const { life } = agent;
  life.touching = names.agent(old.life.touching);
  life.diedAt = old.life.diedAt;
  if (old.isDead) {
    agent.asleep = true;
    life.health = 0;
  } else if (was - was === 0 && is - is === 0) life.health = Math.max(1, old.health + is - was);
}

function carryTracks(old: Agent, agent: Agent, names: Renaming): void {
  const carried = (tracks: readonly Track[]) =>
    tracks.flatMap((track) => {
      const of = names.agent(track.of);
      return of < 0 ? [] : [{ ...track, of }];
    });
  agent.tracks = carried(old.tracks);
  // What was on its way goes on being late, unless nothing is late any more.
  const { reactionTicks } = agent.archetype;
  agent.noticed = reactionTicks > 0 ? carried(old.noticed) : agent.tracks;
  agent.late = old.late.map(({ due, tracks, events, percepts }) => ({
    due: Math.min(due, old.tick + reactionTicks),
    tracks: carried(tracks),
    events: events.slice(),
    percepts: percepts.flatMap((percept) => renamePercept(percept, names)),
  }));
  agent.percepts = old.percepts.map((percept) =>
    percept === null ? null : (renamePercept(percept, names)[0] ?? null),
  );
  agent.perceived = agent.percepts.filter((percept) => percept !== null).length;
  agent.arriving = old.arriving.flatMap(({ due, percept }) =>
    renamePercept(percept, names).map((renamed) => ({ due, percept: renamed })),
  );
  if (reactionTicks === 0) {
    for (const { events, percepts } of agent.late) take(agent, events, percepts);
    agent.late = [];
  }
  attend(agent);
}

/** The percept under the edited program; none where what it says has no word any more. */
function renamePercept(percept: Percept, names: Renaming): Percept[] {
  const what = names.text(percept.what);
  if (what < 0) return [];
  return [{ ...percept, what, of: names.agent(percept.of), thing: names.thing(percept.thing) }];
}

/** What one program's indices for agents and texts are in another; −1 where it is gone. */
interface Renaming {
  agent(index: number): number;
  text(index: number): number;
  thing(index: number): number;
  squad(index: number): number;
}

function renaming(from: Program, to: Program): Renaming {
  const texts = new Map(to.texts.map((text, index) => [text, index]));
  return {
    agent: byName(from.agents, to.agents),
    thing: byName(from.ground.things, to.ground.things),
    squad: byName(from.squads, to.squads),
    text: (index) => texts.get(from.texts[index]) ?? -1,
  };
}

interface Named {
  name: string;
}

/** What an index of one list is in another; −1 where its name is gone. */
function byName(from: readonly Named[], to: readonly Named[]): (index: number) => number {
  const indices = new Map(to.map(({ name }, index) => [name, index]));
  return (index) => indices.get(from[index]?.name) ?? -1;
}

/** Cells of a memory and its keys, under one program. */
interface Memory {
  keys: readonly KeyProgram[];
  cells: Float64Array;
}

/** Carries values over by key name and type; an entry whose agent or text is gone is left out. */
function carryKeys(old: Memory, now: Memory, names: Renaming): void {
  for (const was of old.keys) {
    const key = now.keys.find(({ name, type }) => name === was.name && type === was.type);
    if (!key || old.cells[was.stamp] < 0) continue;
    const width = entryWidth(was.type);
    const renamed = (value: number) => {
      if (was.type.endsWith('agent')) return names.agent(value);
      if (was.type === 'thing') return names.thing(value);
      return was.type.endsWith('text') ? names.text(value) : value;
    };
    const count = was.capacity > 0 ? old.cells[was.slot] : 1;
    const first = was.slot + (was.capacity > 0 ? 1 : 0);
    for (let i = 0; i < count; i++) {
      const [a, b] = [renamed(old.cells[first + i * width]), old.cells[first + i * width + 1]];
      if (was.capacity > 0) addToKey(now.cells, key, a, b, 0);
      else if (!writeKey(now.cells, key, a, b, 0)) return;
    }
    now.cells[key.stamp] = old.cells[was.stamp];
  }
}

function carryShared(old: World, now: World, names: Renaming): void {
  const [before, after] = [old.statics.program, now.statics.program];
  carryKeys(
    { keys: before.worldKeys.keys, cells: old.worldMemory },
    { keys: after.worldKeys.keys, cells: now.worldMemory },
    names,
  );
  const carry = (from: Float64Array, to: Float64Array) =>
    carryKeys(
      { keys: before.squadKeys.keys, cells: from },
      { keys: after.squadKeys.keys, cells: to },
      names,
    );
  before.squads.forEach((_, was) => {
    const squad = names.squad(was);
    if (squad >= 0) carry(old.squadMemories[was], now.squadMemories[squad]);
  });
  for (const agent of now.agents) {
    const was = old.agents.find(({ name }) => name === agent.name);
    if (was && sharesAlone(was) && sharesAlone(agent)) carry(was.squadMemory, agent.squadMemory);
  }
}

/** Gates, things, searches and what else belongs to nobody in particular. */
function carryCommons(old: World, now: World, names: Renaming): void {
  const [before, after] = [old.statics.program.ground, now.statics.program.ground];
  old.things.forEach((thing, was) => {
    const index = names.thing(was);
    // A thing that was put elsewhere by the edit lies there; one that was moved in the run stays.
    if (index < 0 || isElsewhere(before.things[was], after.things[index])) return;
    const carrier = names.agent(thing.carrier);
    now.things[index] = { ...thing, carrier, mover: names.agent(thing.mover) };
    if (carrier >= 0) now.agents[carrier].carried = index;
  });
  const gateNow = byName(before.gates, after.gates);
  old.gates.forEach((status, was) => {
    const gate = gateNow(was);
    if (gate >= 0 && before.gates[was].state === after.gates[gate].state) now.gates[gate] = status;
  });
  const routeNow = byName(before.routes, after.routes);
  old.learned.forEach((points, was) => {
    for (let i = 0; i < points.length; i += 2) now.learn(routeNow(was), points[i], points[i + 1]);
  });
  now.messages = old.messages.flatMap((message) => {
    const [to, by, what] = [
      names.agent(message.to),
      names.agent(message.by),
      names.text(message.what),
    ];
    return to < 0 || what < 0 ? [] : [{ ...message, to, by, what, of: names.agent(message.of) }];
  });
  now.slots = old.slots.flatMap((slot) => {
    const [target, agent] = [names.agent(slot.target), names.agent(slot.agent)];
    return target < 0 || agent < 0 ? [] : [{ ...slot, target, agent }];
  });
  now.searches = old.searches.flatMap((search) => {
    const { group } = search;
    const kept = group >= 0 ? names.squad(group) : -1 - names.agent(-1 - group);
    if (group >= 0 ? kept < 0 : kept === 0) return [];
    const by = search.by.map((who) => (who >= 0 ? names.agent(who) : who));
    return [{ ...search, group: kept, places: search.places.slice(), by }];
  });
  // Which item is which depends on what there is; where that has changed, all can be found anew.
  const same = (list: (world: World) => readonly Named[]) =>
    JSON.stringify(list(old).map(({ name }) => name)) ===
    JSON.stringify(list(now).map(({ name }) => name));
  if (
    same(({ agents }) => agents) &&
    same(({ statics }) => statics.program.squads) &&
    same(({ statics }) => statics.program.ground.things) &&
    same(({ statics }) => statics.program.ground.gates)
  )
    now.found = old.found.map((items) => items.slice());
  settleGates(now);
}

function isElsewhere(a: { x: number; y: number }, b: { x: number; y: number }): boolean {
  return a.x !== b.x || a.y !== b.y;
}

/** Who uses a channel goes on using it where its activity goes on; else the channel is free. */
function carryChannels(old: Agent, agent: Agent, kept: Transplant['kept']): void {
  CHANNELS.forEach((channel, index) => {
    const owner = old.owner(index);
    const stretch = kept.find(({ from, to }) => owner >= from && owner < to);
    agent.take(index, stretch ? owner - stretch.from + stretch.now : 0);
    if (owner === 0 || stretch) return;
    if (channel === 'legs') agent.stopLegs();
    if (channel === 'eyes') agent.freeEyes();
  });
}

function carryMinds(old: Agent, agent: Agent, record: Recorder | null): void {
  if (!old.stack || !agent.stack) return;
  const kept: Transplant['kept'] = [];
  agent.minds.forEach(({ program, machine }, mind) => {
    const was = old.minds.findIndex((before) => before.program.name === program.name);
    if (was < 0) return;
    agent.inboxes[mind] = old.inboxes[was].slice();
    agent.hasEvents ||= agent.inboxes[mind].length > 0;
    const result = transplantMachine(
      {
        program: old.minds[was].program.machine,
        machine: old.minds[was].machine,
        cells: old.memory,
      },
      { program: program.machine, machine, cells: agent.memory },
    );
    kept.push(...result.kept);
    if (record)
      for (const move of result.moved) recordFor(agent, record, { kind: 'moved', ...move });
  });
  carryChannels(old, agent, kept);
}

/**
 * The world as it goes on under an edited program from the next tick: agents keep body, senses, luck,
 * memory by key and active states by id; agents that are new start where they are placed.
 */
export function swapProgram(world: World, program: Program, edit: number, seed: number): World {
  const next = createWorld(program, seed, createStatics(program, world.statics));
  const names = renaming(world.statics.program, program);
  next.tick = world.tick;
  next.decideFor = world.decideFor;
  setRecorder(next, world.recorder);
  world.recorder?.({ tick: world.tick, agent: '', kind: 'edit', edit });
  carryShared(world, next, names);
  carryCommons(world, next, names);
  for (const agent of next.agents) {
    agent.tick = world.tick;
    const old = world.agents.find((candidate) => candidate.name === agent.name);
    if (!old) continue;
    carryBody(old, agent);
    carryTracks(old, agent, names);
    agent.stream = old.stream.slice();
    agent.asleep = old.placed.asleep === agent.placed.asleep ? old.asleep : agent.placed.asleep;
    carryHealth(old, agent, names);
    agent.resting = old.resting;
    agent.role = names.text(old.role);
    agent.refused = old.refused;
    agent.speech = old.speech;
    agent.spokenAt = old.spokenAt;
    if (old.stack && agent.stack)
      carryKeys(
        { keys: old.stack.ownKeys, cells: old.memory },
        { keys: agent.stack.ownKeys, cells: agent.memory },
        names,
      );
    carryMinds(old, agent, world.recorder);
  }
  return next;
}
