import { because, type Reason } from '../../terms/reasons.ts';
import {
  compileNumber,
  compilePoint,
  type NumberFunction,
  type PointFunction,
} from '../../expression/closures.ts';
import type { Host } from '../host.ts';
import type { ActionProgram, ArgumentProgram } from '../program.ts';
import { FAILURE, SUCCESS, type Status } from '../status.ts';

/**
 * The cells of one running action, from the index it is made with: the tick it started in, and two
 * numbers of its own.
 */
export const STARTED = 0;
export const A = 1;
export const B = 2;
export const ACTION_CELLS = 3;

/** An action bound to its arguments and its place in the cells, shared by all agents of a mind. */
export interface RunnableAction {
  /** Issues the first command. An action that takes no time does all its work here. */
  start(host: Host): Status;
  /** Called each decision after the one it started in, while it runs. */
  step?(host: Host): Status;
  /** Called once when it is stopped before its end, or ends, unless another has taken its channel. */
  stop?(host: Host): void;
}

export type ActionMaker = (program: ActionProgram, at: number) => RunnableAction;

/** Ends an action in failure, with the reason for the ledger. */
export function fail(host: Host, reason: Reason): Status {
  host.reason = reason;
  return FAILURE;
}

/** An action that does all its work in its start. `work` returns why it can't be done; null or nothing where it is. */
export function atOnce(work: (host: Host) => Reason | null | void): RunnableAction {
  return {
    start(host) {
      const trouble = work(host) ?? null;
      return trouble === null ? SUCCESS : fail(host, trouble);
    },
  };
}

/** Why the legs have failed. */
export function noWay({ trouble }: Host): Reason {
  return because('noPath', trouble);
}

function argument(program: ActionProgram, name: string): ArgumentProgram {
  const value = program.args[name];
  if (value === undefined) throw new Error(`The program's ${program.action} lacks “${name}”.`);
  return value;
}

/**
 * Puts a place, a point or the last known place of an agent, into the host's `place`; false where it is
 * not known. Numbers that are given back are boxed, and this is asked every decision.
 */
export type PlaceReader = (host: Host) => boolean;

export function placeArgument(program: ActionProgram, name: string): PlaceReader {
  const value = argument(program, name);
  if (typeof value !== 'object')
    throw new Error(`The program's ${program.action} has no place for “${name}”.`);
  const { ir } = value;
  if (ir.type === 'agent') {
    if (ir.op === 'key' && ir.scope === 'self') {
      const { slot } = ir;
      return (host) => host.locate(host.memory[slot]);
    }
    const agent = compileNumber(ir);
    return (host) => host.locate(agent(host));
  }
  const { x, y } = compilePoint(ir);
  return (host) => {
    const { place } = host;
    place[0] = x(host);
    place[1] = y(host);
    return place[0] - place[0] === 0 && place[1] - place[1] === 0;
  };
}

export function numberArgument(program: ActionProgram, name: string): NumberFunction {
  const value = argument(program, name);
  if (typeof value === 'object') return compileNumber(value.ir);
  if (typeof value === 'string')
    throw new Error(`The program's ${program.action} has text for “${name}”.`);
  return () => value;
}

/** The number where it is fixed; undefined for an expression. */
export function constantArgument(program: ActionProgram, name: string): number | undefined {
  const value = argument(program, name);
  return typeof value === 'number' ? value : undefined;
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

/** Whether the action has this argument at all. */
export function hasArgument({ args }: ActionProgram, name: string): boolean {
  return args[name] !== undefined;
}
