import { transplantMachine, type Transplant } from '../mind/machine/transplant.ts';
import { addToKey, entryWidth, writeKey } from '../mind/memory.ts';
import type { KeyProgram } from '../mind/program.ts';
import { CHANNELS } from '../mind/channels.ts';
import { stopLegs } from '../motion/body.ts';
import type { Track } from '../senses/sight.ts';
import { circleBlocked } from '../space/walls.ts';
import type { Agent } from './agent.ts';
import type { Program } from './program.ts';
import type { Recorder } from './recorder.ts';
import { recordFor } from './record-agent.ts';
import { createStatics } from './statics.ts';
import { createWorld, setRecorder, type World } from './world.ts';

function carryBody(old: Agent, agent: Agent): void {
  const { body } = agent;
  const { pace } = body;
  Object.assign(body, old.body, { path: old.body.path.slice(), pace });
  const gait = agent.program.gaits.indexOf(old.program.gaits[old.gait]);
  if (gait >= 0 && !Number.isNaN(agent.archetype.paces[gait])) agent.setGait(gait);
  if (circleBlocked(agent.statics.walls, body.x, body.y, agent.archetype.radius)) {
    body.x = agent.placed.x;
    body.y = agent.placed.y;
    stopLegs(body);
  }
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
  agent.late = old.late
    .slice(-reactionTicks || old.late.length)
    .map(({ tracks, events }) => ({ tracks: carried(tracks), events: events.slice() }));
  if (reactionTicks === 0) {
    agent.deliver(agent.late.flatMap(({ events }) => events));
    agent.late = [];
  }
  agent.attend();
}

/** What one program's indices for agents and texts are in another; −1 where it is gone. */
interface Renaming {
  agent(index: number): number;
  text(index: number): number;
}

function renaming(from: Program, to: Program): Renaming {
  const agents = new Map(to.agents.map(({ name }, index) => [name, index]));
  const texts = new Map(to.texts.map((text, index) => [text, index]));
  return {
    agent: (index) => agents.get(from.agents[index]?.name) ?? -1,
    text: (index) => texts.get(from.texts[index]) ?? -1,
  };
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
  after.squads.forEach((name, index) => {
    const was = before.squads.indexOf(name);
    if (was >= 0) carry(old.squadMemories[was], now.squadMemories[index]);
  });
  for (const agent of now.agents) {
    const was = old.agents.find(({ name }) => name === agent.name);
    if (was && was.placed.squad < 0 && agent.placed.squad < 0)
      carry(was.squadMemory, agent.squadMemory);
  }
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
  for (const agent of next.agents) {
    agent.tick = world.tick;
    const old = world.agents.find((candidate) => candidate.name === agent.name);
    if (!old) continue;
    carryBody(old, agent);
    carryTracks(old, agent, names);
    agent.stream = old.stream.slice();
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
