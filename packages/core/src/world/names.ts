import { figure, type NameTables } from '../expression/readout.ts';
import type { Agent } from './agent.ts';
import type { Program } from './program.ts';

const tables = new WeakMap<Program, NameTables>();

/** What the indices in this program's values are called. */
export function nameTables(program: Program): NameTables {
  let known = tables.get(program);
  if (!known) {
    known = { agents: program.agents, texts: program.texts, routes: program.ground.routes };
    tables.set(program, known);
  }
  return known;
}

/** What a memory key of the agent holds now, for people. */
export function figureOfKey(agent: Agent, key: number): string {
  const { slot, type } = agent.mind!.program.keys[key];
  const value = agent.memory[slot];
  switch (type) {
    case 'agent':
      return agent.program.agents[value]?.title ?? 'nothing';
    case 'text':
      return agent.program.texts[value] ?? 'nothing';
    case 'flag':
      return String(value === 1);
    case 'point':
      return value - value === 0
        ? `(${figure(value)}, ${figure(agent.memory[slot + 1])})`
        : 'nothing';
    default:
      return figure(value);
  }
}
