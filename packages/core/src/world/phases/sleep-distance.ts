import { recordFor } from '../state/record.ts';
import type { World } from '../world.ts';

/** Agents too far from every player rest, and wake again a little nearer. */
export function restFarAgents({ agents, statics, recorder }: World): void {
  if (!statics.someSleep) return;
  const played = agents.filter(({ isPlayed, away }) => isPlayed && !away);
  for (const agent of agents) {
    const { sleepDistance } = agent.archetype;
    if (sleepDistance === 0 || agent.away) continue;
    const limit = agent.resting ? sleepDistance * 0.9 : sleepDistance;
    const near = played.some(({ x, y }) => {
      const dx = x - agent.x;
      const dy = y - agent.y;
      return dx * dx + dy * dy <= limit * limit;
    });
    const rests = played.length > 0 && !near && !agent.isPlayed;
    if (rests === agent.resting) continue;
    agent.resting = rests;
    if (recorder && !agent.isDead) recordFor(agent, recorder, { kind: rests ? 'sleeps' : 'wakes' });
  }
}
