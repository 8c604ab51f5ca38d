import { stepWave } from '../mechanics/game/waves.ts';
import type { World } from '../world.ts';

/** Due agents come to the ground, one of a wave in a tick. */
export function bringWaves(world: World): void {
  for (let wave = 0; wave < world.waves.length; wave++) stepWave(world, wave);
}
