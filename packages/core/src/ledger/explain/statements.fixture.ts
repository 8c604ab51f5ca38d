import type { Program } from '../../world/program/program.ts';
import { advance, createRun, type Run } from '../run.ts';
import type { Statement } from './statement.ts';

/** A run of so many ticks, five seconds of them. */
export function ran(of: Program, ticks = 300): Run {
  const run = createRun(of, 1, 1);
  while (run.head < ticks) advance(run);
  return run;
}

/** A statement that says so, among all that another rests on. */
export function find(statement: Statement, words: string): Statement | undefined {
  return statement.statement.includes(words)
    ? statement
    : statement.cause.map((cause) => find(cause, words)).find(Boolean);
}
