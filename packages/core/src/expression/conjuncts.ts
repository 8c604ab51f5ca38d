import type { Ir } from './ir.ts';

/** The parts of a guard that must all hold. */
export function conjuncts(ir: Ir): Ir[] {
  return ir.op === 'and' ? [...conjuncts(ir.a), ...conjuncts(ir.b)] : [ir];
}
