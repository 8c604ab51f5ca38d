import { CHANNELS } from '../../terms/channels.ts';
import { transplantMachine, type Transplant } from '../../mind/machine/transplant.ts';
import { stopLegs } from '../../motion/body.ts';
import type { AgentState } from './agent-state.ts';
import { recordFor } from './record.ts';
import type { Recorder } from './recorder.ts';

/** Where the minds of an agent stand, carried over to an edited program. */

/** Who uses a channel goes on using it where its activity goes on; else the channel is free. */
function carryChannels(from: AgentState, to: AgentState, kept: Transplant['kept']): void {
  CHANNELS.forEach((channel, index) => {
    const owner = from.owner(index);
    const stretch = kept.find((each) => owner >= each.from && owner < each.to);
    to.take(index, stretch ? owner - stretch.from + stretch.now : 0);
    if (owner === 0 || stretch) return;
    if (channel === 'legs') stopLegs(to.body);
    if (channel === 'eyes') to.body.eyes = NaN;
  });
}

/** Writes into the agent's cells where its minds stand; those of the same name are the same. */
export function carryMinds(from: AgentState, to: AgentState, record: Recorder | null): void {
  if (!from.stack || !to.stack) return;
  const kept: Transplant['kept'] = [];
  for (const { program, machine } of to.minds) {
    const was = from.minds.find((mind) => mind.program.name === program.name);
    if (!was) continue;
    const result = transplantMachine(
      { program: was.program.machine, machine: was.machine, cells: from.memory },
      { program: program.machine, machine, cells: to.memory },
    );
    kept.push(...result.kept);
    if (record) for (const move of result.moved) recordFor(to, record, { kind: 'moved', ...move });
  }
  carryChannels(from, to, kept);
}
