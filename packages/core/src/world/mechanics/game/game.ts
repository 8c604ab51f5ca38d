import { because, type Reason } from '../../../terms/reasons.ts';
import type { GameFacts } from '../../../expression/facts.ts';
import { isInBox } from '../../program/program.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { lightNow } from '../../state/light.ts';
import type { Surroundings } from '../../state/surroundings.ts';
import type { ResultName } from '../../../model/documents.ts';
import { callOff, leave, lives, toCome } from './waves.ts';

/** The game around those on a ground: what can be asked of it, and what its director does to it. */

export function createGame(world: () => Surroundings): GameFacts {
  const members = (word: number): readonly number[] =>
    world().statics.groups.get(word) ?? NO_AGENTS;
  const count = (word: number, counts: (agent: AgentState) => boolean): number => {
    const { agents } = world();
    let found = 0;
    for (const index of members(word)) if (counts(agents[index])) found++;
    return found;
  };
  const lyingIn = (zone: number) => {
    const { things, statics } = world();
    const box = statics.program.ground.zones[zone];
    return things.flatMap(({ x, y, carrier, flight }, thing) =>
      carrier < 0 && flight === 0 && box && isInBox(box, x, y) ? [thing] : [],
    );
  };
  return {
    mode: () => modeNow(world()),
    timeLeft: () => secondsLeft(world()) ?? NaN,
    score(word) {
      const { scores, statics } = world();
      return (
        scores[statics.program.director.scores.findIndex((score) => score.word === word)] ?? NaN
      );
    },
    players: () => world().agents.filter((agent) => agent.isPlayed && lives(agent)).length,
    alive: (word) => count(word, lives),
    toCome(word) {
      const index = world().statics.program.director.waves.findIndex((wave) => wave.word === word);
      return index < 0 ? 0 : toCome(world(), index);
    },
    inZone: (zone, word) => count(word, (agent) => lives(agent) && agent.here.inZone(zone)),
    thingsIn: (zone) => lyingIn(zone).length,
    weightIn: (zone) =>
      lyingIn(zone).reduce(
        (sum, thing) => sum + world().statics.program.ground.things[thing].weight,
        0,
      ),
  };
}

const NO_AGENTS: readonly number[] = [];

/** The mode that holds now, as the index of a text; −1 for none. */
export function modeNow({ schedule, statics }: Surroundings): number {
  if (schedule.over >= 0) return schedule.over;
  return statics.program.director.schedule?.modes[schedule.at]?.word ?? -1;
}

/** Seconds until the mode that holds now is over; null where it does not end by itself. */
export function secondsLeft({ schedule, statics }: Surroundings): number | null {
  const ticks = schedule.over >= 0 ? schedule.overLeft : schedule.left;
  return ticks < 0 ? null : ticks / statics.program.ticksPerSecond;
}

/** Lets every agent know of the mode that holds now. */
export function announceMode(world: Surroundings): void {
  const { recorder, tick, schedule, statics } = world;
  const mode = statics.program.texts[modeNow(world)] ?? '';
  const seconds = secondsLeft(world);
  recorder?.({
    tick,
    agent: '',
    kind: 'mode',
    mode,
    ...(seconds === null ? {} : { seconds }),
    ...(schedule.over >= 0 ? { laidOver: true } : {}),
  });
  if (mode !== '') announce(world, `mode.${mode}`, -1, true);
}

/** Sends an event to the minds of a group, or for −1 of every agent on the ground. */
export function announce(
  world: Surroundings,
  event: string,
  group: number,
  toDirector = false,
): void {
  const { agents, statics, recorder, tick } = world;
  const { texts, director } = statics.program;
  const to =
    group < 0 ? agents.map(({ index }) => index) : (statics.groups.get(group) ?? NO_AGENTS);
  for (const index of to) {
    const agent = agents[index];
    if (index === director.agent ? toDirector : !agent.away) agent.deliver([event]);
  }
  if (!toDirector)
    recorder?.({ tick, agent: '', kind: 'announced', event, to: group < 0 ? '' : texts[group] });
}

/** Adds to a score; false where the points are nothing. */
export function addScore(world: Surroundings, word: number, points: number): boolean {
  const { scores, statics, recorder, tick, result } = world;
  const index = statics.program.director.scores.findIndex((score) => score.word === word);
  if (index < 0 || points - points !== 0) return false;
  // What comes after the end of a run counts no more.
  if (result) return true;
  scores[index] += points;
  const { name } = statics.program.director.scores[index];
  recorder?.({ tick, agent: '', kind: 'score', score: name, by: points, value: scores[index] });
  return true;
}

/** Lays a mode over the schedule, for so many ticks; 0 for until it is set again. */
export function setMode(world: Surroundings, word: number, ticks: number): void {
  world.schedule.over = word;
  world.schedule.overLeft = ticks > 0 ? ticks : -1;
  announceMode(world);
}

/** Changes the light of the whole ground. */
export function setLight(world: Surroundings, to: number, ticks: number): void {
  world.dimming = { from: lightNow(world), to, since: world.tick, ticks };
}

/** Takes the agents of a name off the ground; returns why none is taken, or null. A played agent stays. */
export function sendAway(world: Surroundings, group: number): Reason | null {
  const { agents, statics, recorder, tick } = world;
  let isAny = false;
  const sent = statics.groups.get(group) ?? NO_AGENTS;
  statics.program.director.waves.forEach(({ word, pool }, index) => {
    // Those of a wave that are still to come go too, whatever name they are sent away by.
    const isMeant = word === group || pool.every((agent) => sent.includes(agent));
    if (isMeant) isAny = callOff(world, index) || isAny;
  });
  for (const index of sent) {
    const agent = agents[index];
    if (agent.away || agent.isPlayed) continue;
    recorder?.({ tick, agent: agent.name, kind: 'left' });
    leave(world, agent);
    isAny = true;
  }
  return isAny ? null : because('nobodyToSend');
}

/** Ends the run, for the first who says so. */
export function end(world: Surroundings, how: ResultName, words: string): void {
  if (world.result) return;
  world.result = { how, words, tick: world.tick };
  world.recorder?.({ tick: world.tick, agent: '', kind: 'result', how, words });
}
