import { SENSES, SIGHT } from '../../terms/senses.ts';
import { attendedSense, PERCEPT_SECONDS, replaces, type Percept } from '../../senses/percept.ts';
import type { AgentState } from './agent-state.ts';

/** What of the senses reaches an agent's minds, and which of it has their attention. */

const USUAL_ORDER: readonly number[] = SENSES.map((_, sense) => sense);

/** Passes on what the senses hold, and what they bring in this tick: at once, or a reaction time late. */
export function notice(
  agent: AgentState,
  events: readonly string[],
  percepts: readonly Percept[],
): void {
  const { reactionTicks } = agent.archetype;
  const { known } = agent;
  const { sight, late } = known;
  const something = sight.length > 0 || events.length > 0 || percepts.length > 0;
  // By far the most agents have nothing on their mind at most times.
  if (!something && !known.aware && late.length === 0 && known.attentionSense < 0) return;
  if (reactionTicks === 0) {
    take(agent, events, percepts);
  } else {
    if (something) {
      known.delay(agent.tick + reactionTicks, events, percepts);
    }
    if (agent.known.tracked.length > 0) agent.known.tracked.set(NOTHING);
    if (late.length === 0 || late[0].due > agent.tick) take(agent, NOTHING, NOTHING);
    while (late.length > 0 && late[0].due <= agent.tick) {
      const arrived = known.arrive();
      take(agent, arrived.events, arrived.percepts);
    }
  }
  attend(agent);
}

const NOTHING: readonly never[] = [];

export function take(
  agent: AgentState,
  events: readonly string[],
  percepts: readonly Percept[],
): void {
  if (agent.known.perceived > 0) dropOld(agent);
  for (const percept of percepts) {
    const { sense, what } = percept;
    if (!replaces(percept, agent.known.percepts[sense], agent.ticksPerSecond)) continue;
    if (agent.known.percepts[sense] === null) agent.known.perceived++;
    agent.known.percepts[sense] = percept;
    agent.deliver([`${SENSES[sense]}.${agent.program.texts[what]}`]);
  }
  agent.deliver(events);
}

function dropOld(agent: AgentState): void {
  const { known, tick } = agent;
  const { percepts } = known;
  const kept = PERCEPT_SECONDS * agent.ticksPerSecond;
  for (let sense = 0; sense < percepts.length; sense++) {
    const percept = percepts[sense];
    if (percept === null || tick - percept.tick <= kept) continue;
    percepts[sense] = null;
    agent.known.perceived--;
  }
}

/** Decides again what has the attention. */
export function attend(agent: AgentState): void {
  agent.known.attended = agent.known.tracked.attended(agent.x, agent.y);
  const awareness = agent.known.awarenessShown;
  if (agent.known.perceived === 0 && !agent.minds[0]?.machine.heeds)
    agent.known.attentionSense = awareness > 0 ? SIGHT : -1;
  else {
    const curious = agent.archetype.sight?.curious ?? 0;
    agent.known.attentionSense = attendedSense(
      orderOf(agent),
      agent.known.percepts,
      awareness,
      curious,
    );
  }
  if (agent.known.attentionSense === SIGHT) {
    const { tracked, attended } = agent.known;
    agent.known.attentionOf = tracked.of(attended);
    agent.known.attentionX = tracked.x(attended);
    agent.known.attentionY = tracked.y(attended);
    agent.known.attentionStrength = awareness;
    return;
  }
  const percept =
    agent.known.attentionSense < 0 ? null : agent.known.percepts[agent.known.attentionSense];
  agent.known.attentionOf = percept?.of ?? -1;
  agent.known.attentionX = percept?.x ?? NaN;
  agent.known.attentionY = percept?.y ?? NaN;
  agent.known.attentionStrength = percept?.strength ?? 0;
}

/** The order of the innermost active state that has one. */
function orderOf({ minds, memory }: AgentState): readonly number[] {
  const machine = minds[0]?.machine;
  if (!machine?.heeds) return USUAL_ORDER;
  const { active } = machine.cells;
  for (let i = memory[active]; i > 0; i--) {
    const { attention } = machine.states[memory[active + i]];
    if (attention !== null) return attention;
  }
  return USUAL_ORDER;
}
