import { isInReach } from '../mechanics/telling/messages.ts';
import { sharesAlone, type AgentState } from '../state/agent-state.ts';
import type { SharedWrite } from '../state/surroundings.ts';
import type { World } from '../world.ts';

/** What minds do to the world, in agent order, when all have decided: writes to shared memory, then the rest. */
export function doEffects(world: World): void {
  const { outbox, effects } = world;
  if (outbox.length > 0) applyWrites(world);
  if (effects.length === 0) return;
  for (const effect of effects) effect();
  effects.length = 0;
}

/** Writes to shared memory, in agent order. Where two write one key in a tick the later stays, and the ledger says so. */
function applyWrites(world: World): void {
  const { outbox, recorder, tick: now } = world;
  const writers = new Map<string, AgentState>();
  for (const write of outbox) {
    const { agent } = write;
    world.acting = agent.index;
    if (!agent.apply(write)) {
      agent.recorders?.[0].kept(write.key);
      continue;
    }
    shareWrite(write);
    agent.recorders?.[0].remembered(write.key);
    if (!recorder || write.how === 'add') continue;
    const { name, scope } = agent.stack!.program.keys[write.key];
    const id = `${name} ${scope === 'squad' ? agent.placed.squad : ''}`;
    const before = writers.get(id);
    if (before && before !== agent)
      recorder({ tick: now, agent: agent.name, kind: 'overwrote', key: name, of: before.name });
    writers.set(id, agent);
  }
  outbox.length = 0;
}

/** In a squad whose words carry only so far, a write reaches the members in reach of the writer now. */
function shareWrite(write: SharedWrite): void {
  const { agent } = write;
  if (
    agent.stack!.program.keys[write.key].scope !== 'squad' ||
    !sharesAlone(agent.placed, agent.program)
  )
    return;
  for (const mate of agent.mates()) {
    if (!isInReach(agent, mate)) continue;
    agent.applyTo(mate.squadMemory, write);
  }
}
