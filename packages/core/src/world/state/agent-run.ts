import type { Reason } from '../../terms/reasons.ts';
import { carryFight, copyFight, createFight, type Fight } from './fight.ts';
import { SENSES } from '../../terms/senses.ts';
import { copyBody, createBody, stopLegs, type Body } from '../../motion/body.ts';
import { createStream, type RandomStream } from '../../numeric/random.ts';
import type { Percept } from '../../senses/percept.ts';
import { Tracks, type Track } from '../../senses/tracks.ts';
import type { AgentState } from './agent-state.ts';
import { carryKeys } from './carry-memory.ts';
import { carryMinds } from './carry-minds.ts';
import type { Recorder } from './recorder.ts';
import type { Renaming } from './renaming.ts';
import { handoverBy, type RunField } from './run-table.ts';

/**
 * All that one agent is in a run. What follows from the program is not here, nor what follows from these
 * fields. How each begins, is copied and is carried over to an edit stands in {@link AGENT_RUN}.
 */
export interface AgentRun {
  body: Body;
  gait: number;
  /** What sight holds now. */
  tracks: Track[];
  /** What of it has reached the minds: the tracks themselves, or what they were a reaction time ago. */
  noticed: Track[];
  /** Sensations on their way, the oldest first. */
  late: Sensation[];
  /** By sense: what it brought last, for as long as that counts. */
  percepts: (Percept | null)[];
  /** Sounds and blows on their way, in the order they were made. */
  arriving: Arriving[];
  asleep: boolean;
  /** Not on the ground: no agent sees, hears or touches it. Its body has no place then, and it rests. */
  away: boolean;
  /** Too far from every player to matter, or away: it rests. */
  resting: boolean;
  life: Life;
  fight: Fight;
  /** Why what its hands were to do last could not be done; empty where it was. */
  refused: Reason | null;
  /** What it carries; −1 for nothing. */
  carried: number;
  /** Its part in the squad, as the index of a text; −1 for none. */
  role: number;
  /** By mind: events that wait for its next decision. */
  inboxes: string[][];
  speech: string;
  spokenAt: number;
  stream: RandomStream;
  /** The cells of its minds: memory, active states, what runs. */
  memory: Float64Array;
}

export interface Life {
  /** Points of health left; NaN for an agent that can’t be hurt. */
  health: number;
  /** The tick it died in; −1 while it lives. */
  diedAt: number;
  /** The agent it touches, if that is no friend; −1 for none. */
  touching: number;
}

/** What the senses brought at one tick, on its way to the minds. */
export interface Sensation {
  /** The tick it reaches them in. */
  due: number;
  tracks: Track[];
  events: string[];
  percepts: Percept[];
}

/** A sound or a blow that has been made but not arrived. */
export interface Arriving {
  due: number;
  percept: Percept;
}

/** Where and how an agent begins. */
export interface Beginning {
  x: number;
  y: number;
  heading: number;
  /** A player drives it. */
  played: boolean;
  asleep: boolean;
  /** It is not on the ground. */
  away: boolean;
  /** Of the run; null for one that respawns, whose luck goes on. */
  seed: number | null;
}

/** An agent before and after an edit. */
interface AgentChange {
  from: AgentState;
  to: AgentState;
  names: Renaming;
  record: Recorder | null;
}

/** How a field begins, beside what happens to it where a run changes hands. */
interface AgentField<V> extends RunField<V, AgentState, AgentChange> {
  /** What it holds at the start of a run, and at a respawn. */
  begin(agent: AgentState, beginning: Beginning): V;
}

const same = <V>(value: V): V => value;

/** A number, text or flag that means the same under any program. */
function scalar<V extends number | string | boolean | Reason | null>(
  begin: (agent: AgentState, beginning: Beginning) => V,
): AgentField<V> {
  return { begin, copy: same, carry: same };
}

function carryTracks(tracks: readonly Track[], names: Renaming): Track[] {
  return tracks.flatMap((track) => {
    const of = names.agent(track.of);
    if (of < 0) return [];
    const { move, guard } = track.seen;
    const seen = { ...track.seen, move: names.text(move), guard: names.text(guard) };
    return [{ ...track, of, seen }];
  });
}

/** The percept under the edited program; none where what it says has no word any more. */
function carryPercept(percept: Percept, names: Renaming): Percept[] {
  const what = names.text(percept.what);
  if (what < 0) return [];
  return [{ ...percept, what, of: names.agent(percept.of), thing: names.thing(percept.thing) }];
}

/** Without a reaction time, what has been noticed is what the senses hold. */
function isLate({ archetype }: AgentState): boolean {
  return archetype.reactionTicks > 0;
}

/** The gait of the same name, where the archetype still has it. */
function carryGait({ from, to }: AgentChange): number {
  const gait = to.program.gaits.indexOf(from.program.gaits[from.gait]);
  return gait >= 0 && !Number.isNaN(to.archetype.speeds[gait]) ? gait : to.archetype.gait;
}

/** The body where it was; where the edit put a wall there, where the agent is placed. */
function carryBody(old: Body, change: AgentChange): Body {
  const { to } = change;
  const body = { ...copyBody(old), pace: to.archetype.speeds[carryGait(change)] ?? NaN };
  // Absent agents have no position.
  if (change.from.away) return body;
  if (!to.surroundings.ground.isBlocked(body.x, body.y, to.archetype.radius)) return body;
  body.x = to.placed.x;
  body.y = to.placed.y;
  stopLegs(body);
  return body;
}

/** An edit of the archetype's health changes what is left by as much. */
function carryLife(life: Life, { from, to, names }: AgentChange): Life {
  const [was, is] = [from.archetype.health, to.archetype.health];
  const touching = names.agent(life.touching);
  if (life.diedAt >= 0) return { health: 0, diedAt: life.diedAt, touching };
  const both = was - was === 0 && is - is === 0;
  const health = both ? Math.max(1, life.health + is - was) : is;
  return { health, diedAt: -1, touching };
}

function carrySleep(asleep: boolean, { from, to }: AgentChange): boolean {
  if (from.isDead) return true;
  return from.placed.asleep === to.placed.asleep ? asleep : to.placed.asleep;
}

/** The whole table: a field of {@link AgentRun} that is missing here does not compile. */
const AGENT_RUN: { readonly [K in keyof AgentRun]: AgentField<AgentRun[K]> } = {
  body: {
    begin: ({ archetype }, { x, y, heading, played }) => {
      const body = createBody(x, y, heading, archetype.speeds[archetype.gait] ?? NaN);
      return played ? { ...body, steerX: 0, steerY: 0 } : body;
    },
    copy: copyBody,
    carry: carryBody,
    // The world has the same bodies in a list of its own.
    put: (agent, body) => Object.assign(agent.body, body),
  },
  gait: {
    begin: ({ archetype }) => archetype.gait,
    copy: same,
    carry: (_, change) => carryGait(change),
  },
  tracks: {
    begin: () => [],
    copy: same,
    carry: (tracks, { names }) => carryTracks(tracks, names),
    put: ({ known }, tracks) => known.sight.set(tracks),
  },
  noticed: {
    begin: () => [],
    copy: (noticed, agent) => (isLate(agent) ? noticed : []),
    carry: (noticed, { names }) => carryTracks(noticed, names),
    put: (agent, noticed) => {
      const { known } = agent;
      if (!isLate(agent)) known.tracked = known.sight;
      else {
        if (known.tracked === known.sight) known.tracked = new Tracks();
        known.tracked.set(noticed);
      }
    },
  },
  late: {
    begin: () => [],
    copy: (late) =>
      late.map(({ due, tracks, events, percepts }) => ({
        due,
        tracks,
        events: events.slice(),
        percepts: percepts.slice(),
      })),
    carry: (late, { from, to, names }) =>
      late.map(({ due, tracks, events, percepts }) => ({
        due: Math.min(due, from.tick + to.archetype.reactionTicks),
        tracks: carryTracks(tracks, names),
        events: events.slice(),
        percepts: percepts.flatMap((percept) => carryPercept(percept, names)),
      })),
  },
  percepts: {
    begin: () => SENSES.map(() => null),
    copy: (percepts) => percepts.slice(),
    carry: (percepts, { names }) =>
      percepts.map((percept) => (percept && carryPercept(percept, names)[0]) ?? null),
  },
  arriving: {
    begin: () => [],
    copy: (arriving) => arriving.slice(),
    carry: (arriving, { names }) =>
      arriving.flatMap(({ due, percept }) =>
        carryPercept(percept, names).map((carried) => ({ due, percept: carried })),
      ),
  },
  asleep: { begin: (_, { asleep }) => asleep, copy: same, carry: carrySleep },
  away: scalar((_, { away }) => away),
  // Resting agents are looked at again before any agent senses.
  resting: scalar((_, { away }) => away),
  life: {
    begin: ({ archetype }) => ({ health: archetype.health, diedAt: -1, touching: -1 }),
    copy: (life) => ({ ...life }),
    carry: carryLife,
  },
  fight: {
    begin: ({ archetype }) => createFight(archetype),
    copy: copyFight,
    carry: carryFight,
  },
  refused: scalar(() => null),
  carried: {
    begin: () => -1,
    copy: same,
    // An edit that puts a thing elsewhere takes it out of the hands.
    carry: (carried, { to, names }) => {
      const thing = names.thing(carried);
      return to.surroundings.things[thing]?.carrier === to.index ? thing : -1;
    },
  },
  role: { begin: () => -1, copy: same, carry: (role, { names }) => names.text(role) },
  inboxes: {
    begin: ({ minds }) => minds.map(() => []),
    copy: (inboxes) => inboxes.map((inbox) => inbox.slice()),
    carry: (inboxes, { from, to }) =>
      to.minds.map(({ program }) => {
        const was = from.minds.findIndex((mind) => mind.program.name === program.name);
        return inboxes[was]?.slice() ?? [];
      }),
  },
  speech: scalar(() => ''),
  spokenAt: scalar(() => -1),
  stream: {
    begin: (agent, { seed }) =>
      seed === null ? agent.stream : createStream(seed, `agent ${agent.name}`),
    copy: (stream) => stream.slice(),
    carry: (stream) => stream.slice(),
  },
  memory: {
    begin: ({ stack, memory }) => stack?.initial ?? memory,
    copy: (memory) => memory.slice(),
    carry: (memory, { from, to, names, record }) => {
      if (from.stack && to.stack)
        carryKeys(
          { keys: from.stack.ownKeys, cells: memory },
          { keys: to.stack.ownKeys, cells: to.memory },
          names,
        );
      carryMinds(from, to, record);
      return to.memory;
    },
    // The cells of all agents stand side by side: they stay where they are.
    put: (agent, cells) => agent.memory.set(cells),
  },
};

const handover = handoverBy<AgentRun, AgentState, AgentChange>(AGENT_RUN);

/** Every field as it is at the start, or at a respawn. */
export function begin(agent: AgentState, beginning: Beginning): void {
  for (const field of handover.fields)
    handover.put(agent, field, AGENT_RUN[field].begin(agent, beginning));
}

/** Every field, for keeping. */
export const copyAgentRun = handover.copy;
/** The first field of an agent that a snapshot lacks, or holds otherwise; null for none. */
export const unlikeAgentRun = handover.unlike;
/** Puts every field back as it was kept. */
export const restoreAgentRun = handover.restore;
/** Carries every field over to an edited program. What the whole world has must be carried over before. */
export const carryAgentRun = handover.carry;
