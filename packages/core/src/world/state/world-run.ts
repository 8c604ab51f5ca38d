import { resetKey } from '../../mind/memory.ts';
import type { SharedKeysProgram } from '../../mind/program.ts';
import type { GateStatus } from '../program/program.ts';
import type { Statics } from '../program/statics.ts';
import { sharesAlone } from './agent-state.ts';
import { carryKeys } from './carry-memory.ts';
import {
  beginSchedule,
  beginWave,
  carrySchedule,
  carryScores,
  carryWaves,
  type LightRun,
  type ScheduleRun,
  type WaveRun,
} from './director-run.ts';
import type { RunResult } from '../program/director-program.ts';
import { carryFound, itemCount } from './items.ts';
import type { Renaming } from './renaming.ts';
import { handoverBy, type RunField } from './run-table.ts';
import type { Message, Noise, Search, Shot, Slot, Surroundings, Thing } from './surroundings.ts';

/**
 * All that a run is besides its agents. What follows from the program is not here, nor what follows from
 * these fields. How each begins, is copied and is carried over to an edit stands in {@link WORLD_RUN}.
 */
export interface WorldRun {
  /** Ticks done. */
  tick: number;
  /** By squad, then one for each agent that shares with no other at all times. */
  squadMemories: Float64Array[];
  worldMemory: Float64Array;
  gates: GateStatus[];
  things: Thing[];
  /** What moves have sent flying. */
  shots: Shot[];
  /** Noises of the tick before, on their way to ears. */
  noises: Noise[];
  /** Words on their way from squad member to squad member. */
  messages: Message[];
  searches: Search[];
  /** Which agent has which place around which target. */
  slots: Slot[];
  /** By route: waypoints learned in this run, as x, y pairs. */
  learned: number[][];
  /** By finder (squad, or agent without one): 1 for each item it has found already. */
  found: Uint8Array[];
  /** By agent, then zone, where the director waits for that: 1 for an agent in it, 0 for one outside, 2 before that was looked at. */
  inside: Uint8Array;
  /** By score: its points. */
  scores: number[];
  schedule: ScheduleRun;
  waves: WaveRun[];
  /** The light that is everywhere, where a director has changed it. */
  dimming: LightRun | null;
  /** How it has ended; null while it goes on. */
  result: RunResult | null;
}

/** A world before and after an edit. */
export interface WorldChange {
  from: Surroundings;
  to: Surroundings;
  names: Renaming;
}

/** How a field begins, beside what happens to it where a run changes hands. */
interface WorldField<V> extends RunField<V, Surroundings, WorldChange> {
  /** What it holds before the first tick. */
  begin(statics: Statics): V;
}

function memoryOf({ keys, slots }: SharedKeysProgram): Float64Array {
  const cells = new Float64Array(slots);
  for (const key of keys) resetKey(cells, key);
  return cells;
}

/** Agents that have a copy of their squad's memory to themselves, in order; theirs stand behind those of the squads. */
export function loners({ program }: Statics): number[] {
  return program.agents.flatMap((placed, index) => (sharesAlone(placed, program) ? [index] : []));
}

function carrySquadMemories(memories: Float64Array[], { from, to, names }: WorldChange) {
  const [before, after] = [from.statics.program, to.statics.program];
  const carry = (old: Float64Array, now: Float64Array) =>
    carryKeys(
      { keys: before.squadKeys.keys, cells: old },
      { keys: after.squadKeys.keys, cells: now },
      names,
    );
  before.squads.forEach((_, was) => {
    const squad = names.squad(was);
    if (squad >= 0) carry(memories[was], to.squadMemories[squad]);
  });
  const alone = loners(to.statics);
  loners(from.statics).forEach((agent, was) => {
    const now = alone.indexOf(names.agent(agent));
    if (now < 0) return;
    carry(memories[before.squads.length + was], to.squadMemories[after.squads.length + now]);
  });
  return to.squadMemories;
}

/** A thing or gate that the edit put elsewhere is there; one that the run has moved stays as it is. */
function carryThings(things: Thing[], { from, to, names }: WorldChange): Thing[] {
  const [before, after] = [from.statics.program.ground, to.statics.program.ground];
  const carried = to.things.slice();
  things.forEach((thing, was) => {
    const index = names.thing(was);
    if (index < 0) return;
    const [home, now] = [before.things[was], after.things[index]];
    if (home.x !== now.x || home.y !== now.y) return;
    const { carrier, mover } = thing;
    carried[index] = { ...thing, carrier: names.agent(carrier), mover: names.agent(mover) };
  });
  return carried;
}

/** A shot whose maker, or whose move, is gone is gone too. */
function carryShots(shots: Shot[], { from, to, names }: WorldChange): Shot[] {
  return shots.flatMap((shot) => {
    const by = names.agent(shot.by);
    const { name } = from.agents[shot.by].archetype.moves[shot.move] ?? {};
    const move = to.agents[by]?.archetype.moves.findIndex((each) => each.name === name) ?? -1;
    return by < 0 || move < 0
      ? []
      : [
          {
            ...shot,
            by,
            move,
            target: names.agent(shot.target),
            passed: shot.passed.map((agent) => names.agent(agent)).filter((agent) => agent >= 0),
          },
        ];
  });
}

function carryGates(gates: GateStatus[], { from, to, names }: WorldChange): GateStatus[] {
  const carried = to.gates.slice();
  gates.forEach((status, was) => {
    const gate = names.gate(was);
    const [before, after] = [from.statics.startingGates[was], to.statics.startingGates[gate]];
    if (before === after) carried[gate] = status;
  });
  return carried;
}

/** The group a search belongs to; null where it is gone. */
function carryGroup(group: number, names: Renaming): number | null {
  const now = group >= 0 ? names.squad(group) : names.agent(-1 - group);
  if (now < 0) return null;
  return group >= 0 ? now : -1 - now;
}

function copyEach<V extends object>(list: readonly V[]): V[] {
  return list.map((entry) => ({ ...entry }));
}

/** The whole table: a field of {@link WorldRun} that is missing here does not compile. */
const WORLD_RUN: { readonly [K in keyof WorldRun]: WorldField<WorldRun[K]> } = {
  tick: { begin: () => 0, copy: (tick) => tick, carry: (tick) => tick },
  squadMemories: {
    begin: (statics) => {
      const { squads, squadKeys } = statics.program;
      const count = squads.length + loners(statics).length;
      return Array.from({ length: count }, () => memoryOf(squadKeys));
    },
    copy: (memories) => memories.map((cells) => cells.slice()),
    carry: carrySquadMemories,
    // Agents hold references to the arrays they share.
    put: (world, memories) =>
      memories.forEach((cells, index) => world.squadMemories[index].set(cells)),
  },
  worldMemory: {
    begin: ({ program }) => memoryOf(program.worldKeys),
    copy: (cells) => cells.slice(),
    carry: (cells, { from, to, names }) => {
      carryKeys(
        { keys: from.statics.program.worldKeys.keys, cells },
        { keys: to.statics.program.worldKeys.keys, cells: to.worldMemory },
        names,
      );
      return to.worldMemory;
    },
    put: (world, cells) => world.worldMemory.set(cells),
  },
  gates: {
    begin: ({ startingGates }) => startingGates.slice(),
    copy: (gates) => gates.slice(),
    carry: carryGates,
  },
  things: {
    begin: ({ program }) => program.ground.things.map(thingAtHome),
    copy: copyEach,
    carry: carryThings,
  },
  shots: {
    begin: () => [],
    copy: copyEach,
    carry: carryShots,
  },
  noises: {
    begin: () => [],
    copy: copyEach,
    carry: (noises, { names }) =>
      noises.flatMap((noise) => {
        const what = names.text(noise.what);
        const [maker, thing] = [names.agent(noise.maker), names.thing(noise.thing)];
        return what < 0 ? [] : [{ ...noise, what, maker, thing }];
      }),
  },
  messages: {
    begin: () => [],
    copy: copyEach,
    carry: (messages, { names }) =>
      messages.flatMap((message) => {
        const [to, by] = [names.agent(message.to), names.agent(message.by)];
        const [what, of] = [names.text(message.what), names.agent(message.of)];
        return to < 0 || what < 0 ? [] : [{ ...message, to, by, what, of }];
      }),
  },
  searches: {
    begin: () => [],
    copy: (searches) =>
      searches.map((search) => ({
        ...search,
        places: search.places.slice(),
        by: search.by.slice(),
      })),
    carry: (searches, { names }) =>
      searches.flatMap((search) => {
        const group = carryGroup(search.group, names);
        if (group === null) return [];
        const by = search.by.map((who) => (who >= 0 ? names.agent(who) : who));
        return [{ ...search, group, places: search.places.slice(), by }];
      }),
  },
  slots: {
    begin: () => [],
    copy: copyEach,
    carry: (slots, { names }) =>
      slots.flatMap((slot) => {
        const [target, agent] = [names.agent(slot.target), names.agent(slot.agent)];
        return target < 0 || agent < 0 ? [] : [{ ...slot, target, agent }];
      }),
  },
  learned: {
    begin: ({ program }) => program.ground.routes.map(() => []),
    copy: (learned) => learned.map((points) => points.slice()),
    carry: (learned, { to, names }) => {
      const carried = to.learned.slice();
      learned.forEach((points, was) => {
        const route = names.route(was);
        if (route >= 0) carried[route] = points.slice();
      });
      return carried;
    },
  },
  found: {
    begin: ({ program }) => {
      const items = itemCount(program);
      const finders = program.squads.length + program.agents.length;
      return Array.from({ length: finders }, () => new Uint8Array(items));
    },
    copy: (found) => found.map((items) => items.slice()),
    carry: carryFound,
  },
  inside: {
    begin: ({ program, watchesZones }) => {
      const { agents, ground } = program;
      const size = watchesZones ? agents.length * ground.zones.length : 0;
      return new Uint8Array(size).fill(2);
    },
    copy: (inside) => inside.slice(),
    carry: (inside, { from, to, names }) => {
      const [before, after] = [from.statics.program.ground.zones, to.statics.program.ground.zones];
      if (inside.length === 0 || to.inside.length === 0) return to.inside;
      const carried = to.inside.slice();
      from.agents.forEach((_, was) => {
        const agent = names.agent(was);
        if (agent < 0) return;
        before.forEach(({ name }, zone) => {
          const now = after.findIndex((each) => each.name === name);
          if (now >= 0) carried[agent * after.length + now] = inside[was * before.length + zone];
        });
      });
      return carried;
    },
  },
  scores: {
    begin: ({ program }) => program.director.scores.map(({ start }) => start),
    copy: (scores) => scores.slice(),
    carry: (scores, { from, to }) =>
      carryScores(scores, from.statics.program.director, to.statics.program.director),
  },
  schedule: {
    begin: beginSchedule,
    copy: (schedule) => ({ ...schedule }),
    carry: (schedule, { from, to, names }) =>
      carrySchedule(schedule, from.statics.program.director, to.statics.program.director, names),
  },
  waves: {
    begin: ({ program }) => program.director.waves.map(beginWave),
    copy: (waves) => waves.map((wave) => ({ ...wave, owed: wave.owed.slice() })),
    carry: (waves, { from, to }) =>
      carryWaves(waves, from.statics.program.director, to.statics.program.director),
  },
  dimming: {
    begin: () => null,
    copy: (dimming) => dimming && { ...dimming },
    // An edit of the light that is everywhere counts from now on.
    carry: (dimming, { from, to }) =>
      from.statics.program.ground.light === to.statics.program.ground.light ? dimming : null,
  },
  result: {
    begin: () => null,
    copy: (result) => result && { ...result },
    carry: (result) => result,
  },
};

function thingAtHome({ x, y }: { x: number; y: number }): Thing {
  return {
    x,
    y,
    z: 0,
    carrier: -1,
    mover: -1,
    flown: 0,
    flight: 0,
    fromX: x,
    fromY: y,
    toX: x,
    toY: y,
  };
}

const handover = handoverBy<WorldRun, Surroundings, WorldChange>(WORLD_RUN);

/** Every field as it is before the first tick. */
export function beginWorldRun(statics: Statics): WorldRun {
  const entries = handover.fields.map((field) => [field, WORLD_RUN[field].begin(statics)]);
  return Object.fromEntries(entries) as unknown as WorldRun;
}

/** Every field, for keeping. */
export const copyWorldRun = handover.copy;
/** The first field of a world that a snapshot lacks, or holds otherwise; null for none. */
export const unlikeWorldRun = handover.unlike;
/** Puts every field back as it was kept. */
export const restoreWorldRun = handover.restore;
/** Carries every field over to an edited program. */
export const carryWorldRun = handover.carry;
