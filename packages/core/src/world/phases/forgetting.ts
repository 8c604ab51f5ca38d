import { forgetDueKeys } from '../../mind/memory.ts';
import type { KeyProgram } from '../../mind/program.ts';
import type { AgentState } from '../state/agent-state.ts';
import { recordFor } from '../state/record.ts';
import type { Recorder } from '../state/recorder.ts';
import type { World } from '../world.ts';

/** Memory that is due to be forgotten. */

export function forgetOwn(agent: AgentState, record: Recorder | null): void {
  if (!agent.stack || agent.stack.forgetting.length === 0) return;
  const told =
    record && (({ name }: KeyProgram) => recordFor(agent, record, { kind: 'forgot', key: name }));
  forgetDueKeys(agent.memory, agent.stack.forgetting, agent.tick, told);
}

/** The same for what squads and the world share. */
export function forgetShared({
  statics,
  squadMemories,
  worldMemory,
  tick: now,
  recorder,
}: World): void {
  const { squads } = statics.program;
  const { squad: squadKeys, world: worldKeys } = statics.forgetting;
  const tell = (of: string) =>
    recorder &&
    (({ name }: KeyProgram) => recorder({ tick: now, agent: '', kind: 'forgot', key: name, of }));
  if (squadKeys.length > 0)
    squadMemories.forEach((cells, squad) =>
      forgetDueKeys(cells, squadKeys, now, tell(squads[squad]?.name ?? '')),
    );
  if (worldKeys.length > 0) forgetDueKeys(worldMemory, worldKeys, now, tell('world'));
}
