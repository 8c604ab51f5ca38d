import { announceMode, end } from '../mechanics/game/game.ts';
import { lives } from '../mechanics/game/waves.ts';
import { tellDirector } from '../mechanics/telling/telling.ts';
import type { World } from '../world.ts';
import { doEffects } from './effects.ts';
import { decideOne } from './minds.ts';

/** The clock goes on, then the director decides: before the senses, so that others meet the world as it has made it. */
export function direct(world: World): void {
  noteEntered(world);
  const isDone = stepSchedule(world);
  if (isDone) tellDirector(world, 'schedule.over');
  const director = world.agents[world.statics.program.director.agent];
  if (director) {
    decideOne(director);
    doEffects(world);
  }
  if (isDone) end(world, 'over', 'The time is over.');
}

/** Tells the director which agents have entered which zone since the tick before; agents that start there have not. */
function noteEntered(world: World): void {
  const { agents, inside, statics } = world;
  if (inside.length === 0) return;
  const { zones } = statics.program.ground;
  for (const agent of agents) {
    const isHere = lives(agent);
    for (let zone = 0; zone < zones.length; zone++) {
      const at = agent.index * zones.length + zone;
      const now = Number(isHere && agent.here.inZone(zone));
      if (now === 1 && inside[at] === 0)
        tellDirector(world, `entered.${zones[zone].name}.${agent.archetype.name}`);
      inside[at] = now;
    }
  }
}

/** The schedule in one tick, or what is laid over it; returns whether the last mode is over, and the run with it. */
function stepSchedule(world: World): boolean {
  const { schedule } = world;
  if (schedule.over >= 0) {
    if (schedule.overLeft < 0 || --schedule.overLeft > 0) return false;
    schedule.over = -1;
    schedule.overLeft = -1;
    announceMode(world);
    // The tick before was not the schedule's.
    return false;
  }
  const { schedule: program } = world.statics.program.director;
  if (!program) return false;
  if (schedule.at >= 0 && (schedule.left < 0 || --schedule.left > 0)) return false;
  const next = schedule.at + 1;
  const isLast = next === program.modes.length;
  if (isLast && program.afterwards === 'end') {
    schedule.left = -1;
    return true;
  }
  schedule.at = isLast ? 0 : next;
  const stays = program.afterwards === 'stay' && schedule.at === program.modes.length - 1;
  schedule.left = stays ? -1 : program.modes[schedule.at].ticks;
  announceMode(world);
  return false;
}
