import { isLook, lasting, mindOfEntry, ticksOf, type Detector } from './detector.ts';
import { isCandidateKey } from '../mind/memory.ts';
import type { LedgerEntry } from '../world/state/recorder.ts';
import type { World } from '../world/world.ts';
import { leafState } from '../world/readout/picture.ts';

/** What is noticed of memory. */

/** Keys that still hold a dead agent. */
export function targetGone(): Detector {
  const lasts = lasting();
  return (moment) => {
    const { world, limits, report } = moment;
    if (!isLook(moment)) return;
    const long = ticksOf(moment, limits.goneFor);
    for (const agent of world.agents) {
      if (!agent.stack || agent.isDead || agent.asleep) continue;
      agent.stack.program.keys.forEach((key) => {
        if (key.type !== 'agent' || key.capacity > 0 || isCandidateKey(key)) return;
        const held = world.agents[agent.cellsOf(key)[key.slot]];
        const isGone = held?.isDead === true;
        if (!lasts(`${agent.name} ${key.name}`, world.tick, isGone, long)) return;
        report({
          kind: 'targetGone',
          agent: agent.name,
          key: key.name,
          message: `${key.name} holds ${held.placed.title}, dead for ${limits.goneFor} s or more.`,
        });
      });
    }
  };
}

/** What was to be remembered and was nothing, so that the key keeps what it had; and bodies that are nowhere. */
export function notFinite(): Detector {
  const lasts = lasting();
  return (moment) => {
    const { world, entries, report } = moment;
    for (const { name, x, y } of world.agents)
      if (lasts(name, world.tick, x - x !== 0 || y - y !== 0, 1))
        report({ kind: 'notFinite', agent: name, key: '', message: 'Its body is nowhere.' });
    for (const entry of entries) {
      if (entry.kind !== 'kept') continue;
      const place = doing(world, entry);
      report({
        kind: 'notFinite',
        agent: entry.agent,
        key: `${place?.mind} ${entry.key}`,
        message: `${entry.key} was to be written${place ? ` in ${place.title}` : ''}, and the value was nothing: it keeps what it had.`,
        ...(place && { place }),
      });
    }
  };
}

/** The mind an entry is of, and its innermost active state; undefined where an edit has taken them away. */
function doing(world: World, entry: LedgerEntry) {
  const found = mindOfEntry(world, entry);
  if (!found) return undefined;
  const { agent, index } = found;
  const { name: mind, machine } = agent.minds[index].program;
  const state = machine.states[leafState(agent, index)];
  return state && { mind, state: state.id, title: state.title };
}
