import { changeKeys, type End } from '../../mind/memory.ts';
import type { KeyProgram } from '../../mind/program.ts';
import { recordFor } from '../state/record.ts';
import type { World } from '../world.ts';

/** Numbers in memory that change by themselves: needs that run down, fear that fades. Asleep or awake; resting and dead agents keep what they have. */
export function changeNumbers(world: World): void {
  const { agents, statics, recorder, tick } = world;
  const { changing, program } = statics;
  for (let i = 0; changing.own && i < agents.length; i++) {
    const agent = agents[i];
    const { stack, memory } = agent;
    world.acting = i;
    if (!stack || stack.changing.length === 0 || agent.resting || agent.isDead) continue;
    changeKeys(
      memory,
      stack.changing,
      recorder &&
        (({ name: key, slot }, end) =>
          recordFor(agent, recorder, { kind: 'reached', key, end, value: memory[slot] })),
    );
  }
  world.acting = -1;
  const tell = (cells: Float64Array, of: string) =>
    recorder &&
    (({ name: key, slot }: KeyProgram, end: End) =>
      recorder({ tick, agent: '', kind: 'reached', key, end, value: cells[slot], of }));
  if (changing.squad.length > 0)
    world.squadMemories.forEach((cells, squad) =>
      changeKeys(cells, changing.squad, tell(cells, program.squads[squad]?.name ?? '')),
    );
  changeKeys(world.worldMemory, changing.world, tell(world.worldMemory, 'world'));
}
