import { spreadNoises } from '../mechanics/telling/noises.ts';
import type { Recorder } from '../state/recorder.ts';
import type { World } from '../world.ts';

/** The noises of the tick before set out for all ears that will hear them. */
export function sendNoises(world: World): void {
  if (world.noises.length === 0) return;
  if (world.recorder) recordNoises(world, world.recorder);
  spreadNoises(world);
}

/** Steps are recorded of players only: others make too many of them, and what is heard is recorded anyway. */
function recordNoises({ noises, agents, statics, tick }: World, record: Recorder): void {
  const { texts } = statics.program;
  for (const { what, x, y, reach, maker } of noises) {
    if (what === statics.words.step && !agents[maker]?.isPlayed) continue;
    const agent = agents[maker]?.name ?? '';
    record({ tick, agent, kind: 'noise', what: texts[what], x, y, reach });
  }
}
