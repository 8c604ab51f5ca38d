import {
  compileNumber,
  compilePlace,
  compilePoint,
  type NumberFunction,
  type PointFunction,
} from '../../expression/closures.ts';
import type { Host } from '../host.ts';
import type { ActionProgram, ArgumentProgram } from '../program.ts';

export const RUNNING = 0;
export const SUCCESS = 1;
export const FAILURE = 2;
export type Status = typeof RUNNING | typeof SUCCESS | typeof FAILURE;

/** What one running action keeps between ticks; plain numbers, so that it can stand in a snapshot. */
export interface ActionMemory {
  startedAt: number;
  a: number;
  b: number;
}

/** An action bound to its arguments, shared by all agents of a mind. */
export interface RunnableAction {
  name: string;
  /** Gives the first command. An action that takes no time does all its work here. */
  start(host: Host, memory: ActionMemory): Status;
  /** Called each decision after the one it started in, while it runs. */
  step?(host: Host, memory: ActionMemory): Status;
  /** Called once when it is stopped before its end, or ends. */
  stop?(host: Host, memory: ActionMemory): void;
}

export type ActionMaker = (program: ActionProgram) => Omit<RunnableAction, 'name'>;

function argument(program: ActionProgram, name: string): ArgumentProgram {
  const value = program.args[name];
  if (value === undefined) throw new Error(`The program's ${program.action} lacks “${name}”.`);
  return value;
}

export function numberArgument(program: ActionProgram, name: string): NumberFunction {
  const value = argument(program, name);
  if (typeof value === 'object') return compileNumber(value.ir);
  if (typeof value === 'string')
    throw new Error(`The program's ${program.action} has text for “${name}”.`);
  return () => value;
}

export function placeArgument(program: ActionProgram, name: string): PointFunction {
  const value = argument(program, name);
  if (typeof value !== 'object')
    throw new Error(`The program's ${program.action} has no place for “${name}”.`);
  return compilePlace(value.ir);
}

export function textArgument(program: ActionProgram, name: string): string {
  return String(argument(program, name));
}

export function indexArgument(program: ActionProgram, name: string): number {
  return Number(argument(program, name));
}

/** A value of any type as two numbers; the second matters for points only. */
export function valueArgument(program: ActionProgram, name: string): PointFunction {
  const value = argument(program, name);
  if (typeof value === 'object' && value.ir.type === 'point') return compilePoint(value.ir);
  return { x: numberArgument(program, name), y: () => NaN };
}
