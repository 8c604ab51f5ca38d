import { isLook, lasting, ticksOf, type Detector } from './detector.ts';
import { isCandidateKey } from '../mind/memory.ts';

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

const WRITES = new Set(['remember', 'add']);

/** What was to be remembered and was nothing, so that the key keeps what it had; and bodies that are nowhere. */
export function notFinite(): Detector {
  const lasts = lasting();
  return (moment) => {
    const { world, entries, report } = moment;
    for (const { name, x, y } of world.agents)
      if (lasts(name, world.tick, x - x !== 0 || y - y !== 0, 1))
        report({ kind: 'notFinite', agent: name, key: '', message: 'Its body is nowhere.' });
    /** By agent: how often it was to write memory more than it did. */
    const missing = new Map<string, number>();
    for (const entry of entries) {
      const writes = entry.kind === 'did' && WRITES.has(entry.action);
      if (!writes && entry.kind !== 'memory') continue;
      missing.set(entry.agent, (missing.get(entry.agent) ?? 0) + (writes ? 1 : -1));
    }
    for (const [agent, count] of missing) {
      if (count <= 0) continue;
      report({
        kind: 'notFinite',
        agent,
        key: 'memory',
        message: 'It was to remember something that was nothing, so the key keeps what it had.',
      });
    }
  };
}
