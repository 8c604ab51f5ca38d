import type { Program } from '../program/program.ts';
import { createStatics } from '../program/statics.ts';
import { carryAgentRun } from '../state/agent-run.ts';
import type { AgentState } from '../state/agent-state.ts';
import { attend, take } from '../state/attention.ts';
import { renaming } from '../state/renaming.ts';
import { carryWorldRun } from '../state/world-run.ts';
import { createWorld, setRecorder, settle, type World } from '../world.ts';

/**
 * The world as it goes on under an edited program from the next tick. What is carried over, and how, is
 * said where the state of a run is: in `state/world-run.ts` and `state/agent-run.ts`. Agents that are new
 * start where they are placed. The world given is not to be used any more.
 *
 * @param edit the number by which the ledger names the edit
 * @param seed the run’s, for the random numbers of agents that are new
 */
export function swapProgram(world: World, program: Program, edit: number, seed: number): World {
  const next = createWorld(program, seed, createStatics(program, world.statics));
  const names = renaming(world.statics.program, program);
  const { recorder } = world;
  next.decideFor = world.decideFor;
  recorder?.({ tick: world.tick, agent: '', kind: 'edit', edit });
  carryWorldRun({ from: world, to: next, names });
  // Walls are to stand as the gates do before bodies are put among them.
  settle(next);
  const before = new Map(world.agents.map((agent) => [agent.name, agent]));
  for (const agent of next.agents) {
    const old = before.get(agent.name);
    if (!old) continue;
    carryAgentRun({ from: old, to: agent, names, record: recorder });
    agent.settlePace();
  }
  const now = new Set(next.agents.map(({ name }) => name));
  for (const { name, placed, away } of world.agents)
    if (placed.away && !away && !now.has(name))
      recorder?.({ tick: world.tick, agent: name, kind: 'left' });
  settle(next);
  for (const agent of next.agents) takeLate(agent);
  setRecorder(next, recorder);
  return next;
}

/** An agent whose archetype has lost its reaction time takes at once what was on its way. */
function takeLate(agent: AgentState): void {
  if (agent.archetype.reactionTicks > 0 || agent.late.length === 0) return;
  for (const { events, percepts } of agent.late) take(agent, events, percepts);
  agent.late = [];
  attend(agent);
}
