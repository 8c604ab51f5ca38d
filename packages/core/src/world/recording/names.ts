import { figure, type NameTables } from '../../expression/readout.ts';
import type { ValueType } from '../../expression/ir.ts';
import { entryWidth } from '../../mind/memory.ts';
import type { MindProgram } from '../../mind/program.ts';
import type { AgentState } from '../state/agent-state.ts';
import type { Program } from '../program/program.ts';

/** The first of the minds that agents of an archetype have, by its index; null for none. */
export function firstMind(program: Program, archetype: number): MindProgram | null {
  return program.stacks[program.archetypes[archetype].stack]?.minds[0] ?? null;
}

const tables = new WeakMap<Program, NameTables>();

/** What the indices in this program's values are called. */
export function nameTables(program: Program): NameTables {
  let known = tables.get(program);
  if (!known) {
    const { routes, things, gates, zones } = program.ground;
    known = { agents: program.agents, texts: program.texts, routes, things, gates, zones };
    tables.set(program, known);
  }
  return known;
}

/** What a memory key of the agent holds now, for people. */
export function figureOfKey(agent: AgentState, key: number): string {
  const program = agent.stack!.program.keys[key];
  const { slot, type, capacity } = program;
  const cells = agent.cellsOf(program);
  if (capacity === 0) return figureOf(agent, type, cells, slot);
  const count = cells[slot];
  if (count === 0) return 'empty';
  const last = slot + 1 + (count - 1) * entryWidth(type);
  const entry = type.replace('list of ', '') as ValueType;
  return `${count} of ${capacity}, last ${figureOf(agent, entry, cells, last)}`;
}

function figureOf(agent: AgentState, type: ValueType, cells: Float64Array, at: number): string {
  return valueText(agent.program, type, cells[at], cells[at + 1]);
}

/**
 * A candidate of an option as people say it, with as many digits as tell it from the others: points to a
 * tenth of a millimetre, numbers to nine digits.
 */
export function candidateText(program: Program, type: ValueType, value: number, y: number): string {
  if (type === 'point') return `(${Number(value.toFixed(4))}, ${Number(y.toFixed(4))})`;
  return type === 'number'
    ? String(Number(value.toPrecision(9)))
    : valueText(program, type, value, y);
}

/** A value of a type as people say it; `y` is that of a point. */
function valueText(program: Program, type: ValueType, value: number, y: number): string {
  switch (type) {
    case 'agent':
      return program.agents[value]?.title ?? 'nothing';
    case 'thing':
      return program.ground.things[value]?.title ?? 'nothing';
    case 'text':
      return program.texts[value] ?? 'nothing';
    case 'flag':
      return String(value === 1);
    case 'point':
      return value - value === 0 ? `(${figure(value)}, ${figure(y)})` : 'nothing';
    default:
      return figure(value);
  }
}
