import type { GroundSpace } from '../../ground/ground.ts';
import { GROUND_KINDS } from '../../ground/kinds/kinds.ts';
import { GATE_OPEN, GATE_STATUS, type GroundProgram } from './program.ts';

/** What of a ground says what is solid on it. */
type Walled = Pick<GroundProgram, 'view' | 'width' | 'height' | 'walls' | 'gates'>;

/** What is solid on a ground while its gates stand so, by gate. */
export function spaceOf(
  { view, width, height, walls, gates }: Walled,
  stands: (gate: number) => boolean,
): GroundSpace {
  const solids = [...walls, ...gates.filter((_, gate) => stands(gate))];
  return GROUND_KINDS[view].space({ width, height, solids });
}

/** The same at the start of a run. */
export function startingSpace(ground: Walled): GroundSpace {
  return spaceOf(ground, (gate) => GATE_STATUS[ground.gates[gate].state] !== GATE_OPEN);
}
