import type { Guard } from '../heed.ts';
import type { Host } from '../host.ts';
import { FAILURE, RUNNING, type Status } from '../status.ts';

/**
 * Something that may run over many decisions; shared by all agents of a mind, since all it keeps is in
 * the agent's cells.
 */
export interface Behaviour {
  start(host: Host): Status;
  /** Only while it runs. */
  step(host: Host): Status;
  /** Ends it before its time: what is below it first. Only while it runs. */
  stop(host: Host): void;
}

/** How a row's last result stands in its cell: four times the tick, plus 0 for stopped, else one more than the status. */
export type RowResult = 'running' | 'success' | 'failure' | 'stopped';
const RESULTS: readonly RowResult[] = ['stopped', 'running', 'success', 'failure'];

export function mark(host: Host, at: number, status: Status): void {
  host.memory[at] = host.tick * 4 + status + 1;
}

export function markStopped(host: Host, at: number): void {
  host.memory[at] = host.tick * 4;
}

export function isRunning(host: Host, at: number): boolean {
  return host.memory[at] % 4 === RUNNING + 1;
}

/** A row's last result and the tick of it; null where the row was never reached. */
export function readRow(cell: number): { tick: number; result: RowResult } | null {
  return cell < 4 ? null : { tick: Math.floor(cell / 4), result: RESULTS[cell % 4] };
}

/** What a row came to in one tick, in a byte: its place in this list. */
export const ROW_CODES: readonly (RowResult | null)[] = [null, ...RESULTS];

/** The place in {@link ROW_CODES} of what a row came to in a tick, from its cell; 0 where it was not reached. */
export function rowCode(cell: number, tick: number): number {
  return cell >= 4 && Math.floor(cell / 4) === tick ? 1 + (cell % 4) : 0;
}

/** One row of a tree: what it does, behind its guard. */
export class TreeNode implements Behaviour {
  readonly at: number;
  readonly guard: Guard | null;
  readonly preempts: boolean;
  private readonly holds: boolean;
  private readonly body: Behaviour;

  constructor(body: Behaviour, at: number, guard: Guard | null, holds: boolean, preempts: boolean) {
    this.body = body;
    this.at = at;
    this.guard = guard;
    this.holds = holds;
    this.preempts = preempts;
  }

  /** Whether its guard lets it start. What is refused has not started. */
  admits(host: Host): boolean {
    return this.guard === null || this.guard(host);
  }

  start(host: Host): Status {
    const status = this.admits(host) ? this.body.start(host) : FAILURE;
    mark(host, this.at, status);
    return status;
  }

  step(host: Host): Status {
    let status: Status;
    if (this.holds && !this.guard!(host)) {
      this.body.stop(host);
      status = FAILURE;
    } else {
      status = this.body.step(host);
    }
    mark(host, this.at, status);
    return status;
  }

  stop(host: Host): void {
    this.body.stop(host);
    markStopped(host, this.at);
  }

  /** How it stands since it was started last; undefined where it was stopped. */
  status(host: Host): Status | undefined {
    const standing = host.memory[this.at] % 4;
    return standing === 0 ? undefined : ((standing - 1) as Status);
  }
}
