import { sameData } from '../../../terms/same-data.ts';
import { because, type Reason } from '../../../terms/reasons.ts';
import { nextRandom } from '../../../numeric/random.ts';
import type { WaveProgram } from '../../program/director-program.ts';
import { begin, type Beginning } from '../../state/agent-run.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { attend } from '../../state/attention.ts';
import { beginWave, type WaveRun } from '../../state/director-run.ts';
import { recordFor } from '../../state/record.ts';
import type { WaveChange } from '../../state/recorder.ts';
import type { Surroundings } from '../../state/surroundings.ts';
import { leavePlace, leaveSlot } from './booking.ts';
import { drop } from '../hands/hands.ts';
import { whoStandsAt } from './room.ts';
import { tellDirector } from '../telling/telling.ts';

/** How agents come to a ground while a run goes on, and leave it. */

/** Whether there is room for a body. The dead are no hindrance: one that lies at the only spawn place would keep all others out. */
export function hasRoom(world: Surroundings, agent: AgentState, x: number, y: number): boolean {
  if (world.ground.isBlocked(x, y, agent.archetype.radius)) return false;
  return !whoStandsAt(world, agent, x, y, ({ isDead }) => !isDead);
}

/** As at the start of a run, elsewhere: nothing is remembered, known or on its way; its random numbers go on. A played agent stays played. */
export function beginAgain(
  world: Surroundings,
  agent: AgentState,
  { x, y, heading }: { x: number; y: number; heading: number },
): void {
  start(agent, { x, y, heading, played: agent.isPlayed, away: false });
  // Its body can be found again, should it come to that.
  for (const items of world.found) items[agent.index] = 0;
}

/** Takes an agent off the ground: it drops what it carries, and what it had taken is free for others. */
export function leave(world: Surroundings, agent: AgentState): void {
  if (agent.carried >= 0) drop(world, agent);
  leavePlace(world, agent, false);
  leaveSlot(world, agent);
  start(agent, { x: NaN, y: NaN, heading: 0, played: false, away: true });
}

/** Nothing is left of what it noticed, knew and was at; its luck goes on. */
function start(agent: AgentState, how: Omit<Beginning, 'asleep' | 'seed'>): void {
  begin(agent, { ...how, asleep: false, seed: null });
  agent.known.perceived = 0;
  agent.hasEvents = false;
  attend(agent);
}

export function lives(agent: AgentState): boolean {
  return !agent.away && !agent.isDead;
}

/** How many of a wave are alive on the ground. */
export function countAlive({ agents }: Surroundings, { pool }: WaveProgram): number {
  return pool.filter((each) => lives(agents[each])).length;
}

function recordWave(
  { recorder, tick, statics, waves }: Surroundings,
  index: number,
  how: WaveChange,
  reason?: Reason,
): void {
  const { name: wave } = statics.program.director.waves[index];
  const { times } = waves[index];
  recorder?.({
    tick,
    agent: '',
    kind: 'wave',
    wave,
    how,
    times,
    ...(reason === undefined ? {} : { reason }),
  });
}

/** Starts a wave; returns why it can't be, or null. */
export function bringWave(world: Surroundings, index: number): Reason | null {
  const run = world.waves[index];
  if (run.times > 0 && !run.isOver) return because('waveComing');
  const { turn } = run;
  Object.assign(run, beginWave(), { turn });
  come(world, index);
  return null;
}

/** They come, for the first time or once more. */
function come(world: Surroundings, index: number): void {
  const run = world.waves[index];
  run.times++;
  run.brought = 0;
  run.goneAt = -1;
  run.due = world.tick;
  recordWave(world, index, 'comes');
}

/** How many of a wave are still to come this time. */
export function toCome(world: Surroundings, index: number): number {
  const { times, isOver, brought, owed } = world.waves[index];
  if (times === 0 || isOver) return 0;
  return Math.max(0, world.statics.program.director.waves[index].count - brought) + owed.length;
}

/** Calls off the agents that are still to come; returns whether there were any. */
export function callOff(world: Surroundings, index: number): boolean {
  const run = world.waves[index];
  if (run.isOver || run.times === 0) return false;
  Object.assign(run, { owed: [], isOver: true, held: null, heldSince: -1 });
  recordWave(world, index, 'calledOff');
  return true;
}

/** One of a wave has died: where each comes again, so does this one. */
export function noteDeath(world: Surroundings, agent: AgentState): void {
  world.statics.program.director.waves.forEach((wave, index) => {
    if (wave.after !== 'each' || !wave.pool.includes(agent.index)) return;
    const run = world.waves[index];
    if (run.isOver || (wave.times > 0 && run.again >= wave.count * (wave.times - 1))) return;
    run.again++;
    run.owed.push(world.tick + wave.delayTicks);
  });
}

/** The agent that a wave brings next: an absent one, else the one that has lain dead the longest, unless its body disappears by itself; null for none. */
function nextOf({ agents }: Surroundings, { pool }: WaveProgram): AgentState | null {
  let dead: AgentState | null = null;
  for (const index of pool) {
    const agent = agents[index];
    if (agent.away) return agent;
    const { diedAt } = agent.life;
    if (diedAt < 0 || agent.archetype.respawnTicks > 0) continue;
    if (dead === null || diedAt < dead.life.diedAt) dead = agent;
  }
  return dead;
}

/** Metres from a place to the nearest played agent; 0 where none is played. */
function fromPlayers({ agents }: Surroundings, x: number, y: number): number {
  let least = Infinity;
  for (const agent of agents)
    if (agent.isPlayed && lives(agent)) least = Math.min(least, agent.awayFrom(x, y));
  return least === Infinity ? 0 : least;
}

type Spawn = WaveProgram['spawns'][number];

/** Where one comes in; null where there is no room at any place that counts. */
function spawnFor(
  world: Surroundings,
  wave: WaveProgram,
  run: WaveRun,
  agent: AgentState,
): Spawn | null {
  const { spawns, order } = wave;
  const free = (spawn: Spawn) => hasRoom(world, agent, spawn.x, spawn.y);
  if (order === 'turn') {
    for (let i = 0; i < spawns.length; i++) {
      const place = (run.turn + i) % spawns.length;
      if (!free(spawns[place])) continue;
      run.turn = (place + 1) % spawns.length;
      return spawns[place];
    }
    return null;
  }
  const places = spawns.filter(free);
  if (places.length === 0) return null;
  if (order === 'random') return places[Math.floor(nextRandom(agent.stream) * places.length)];
  const away = places.map(({ x, y }) => fromPlayers(world, x, y));
  return places[away.indexOf(Math.max(...away))];
}

/** Reports why no due agent comes, once for each reason. */
function hold(world: Surroundings, index: number, reason: Reason): void {
  const run = world.waves[index];
  if (sameData(run.held, reason)) return;
  run.held = reason;
  run.heldSince = world.tick;
  recordWave(world, index, 'held', reason);
}

/** Brings one due agent, where there is room. */
function bringOne(world: Surroundings, index: number): void {
  const wave = world.statics.program.director.waves[index];
  const run = world.waves[index];
  const living = countAlive(world, wave);
  if (living >= wave.pool.length) return hold(world, index, because('waveFull', living));
  const agent = nextOf(world, wave);
  if (!agent) return hold(world, index, because('waveBodiesLie'));
  const spawn = spawnFor(world, wave, run, agent);
  if (!spawn) {
    const places = wave.spawns.map(({ title }) => title).join(', ');
    return hold(world, index, because('waveNoRoom', places));
  }
  beginAgain(world, agent, spawn);
  if (run.brought < wave.count) run.brought++;
  else run.owed.shift();
  Object.assign(run, { due: world.tick + wave.gapTicks, held: null, heldSince: -1 });
  if (world.recorder) {
    const { title: at, x, y } = spawn;
    recordFor(agent, world.recorder, { kind: 'came', wave: wave.name, at, x, y });
  }
  tellDirector(world, `arrived.${wave.name}`);
}

/** Whether a played agent stands in the zone that starts it. */
function isEntered({ agents }: Surroundings, { zone }: WaveProgram): boolean {
  return agents.some((agent) => agent.isPlayed && lives(agent) && agent.here.inZone(zone));
}

/** One wave in one tick: it starts, brings one more, comes again, or is over. */
export function stepWave(world: Surroundings, index: number): void {
  const { agents, tick } = world;
  const wave = world.statics.program.director.waves[index];
  const run = world.waves[index];
  if (run.isOver) return;
  if (run.times === 0) {
    const starts = wave.starts === 'run' || (wave.starts === 'zone' && isEntered(world, wave));
    if (!starts) return;
    come(world, index);
  }
  if (run.brought < wave.count || (run.owed.length > 0 && run.owed[0] <= tick)) {
    if (tick >= run.due) bringOne(world, index);
    return;
  }
  if (run.owed.length > 0 || wave.pool.some((each) => lives(agents[each]))) return;
  if (wave.after === 'each' || (wave.times > 0 && run.times >= wave.times)) {
    run.isOver = true;
    recordWave(world, index, 'over');
    return tellDirector(world, `over.${wave.name}`);
  }
  if (run.goneAt < 0) run.goneAt = tick;
  if (tick < run.goneAt + wave.delayTicks) return;
  come(world, index);
  bringOne(world, index);
}
