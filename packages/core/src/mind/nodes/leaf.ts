import { CHANNELS } from '../../terms/channels.ts';
import { because } from '../../terms/reasons.ts';
import { ACTION_CELLS, STARTED, type RunnableAction } from '../actions/action.ts';
import { makeAction } from '../actions/index.ts';
import { reserve } from '../cells.ts';
import type { Host } from '../host.ts';
import type { ActionProgram } from '../program.ts';
import { FAILURE, RUNNING, SUCCESS, type Status } from '../status.ts';
import type { Grove } from './grove.ts';
import type { NodeKindOf } from './node-kind.ts';
import type { Behaviour } from './node.ts';

const RESULT = ACTION_CELLS;
const NO_RESULT = -1;

/** An action where a mind carries it out: it takes its channel, tells the ledger, and ends once. */
export class Leaf implements Behaviour {
  readonly name: string;
  readonly lasts: boolean;
  readonly channel: number;
  /** The cell that says who uses its channel; −1 where it has none. */
  private readonly channelAt: number;
  readonly at: number;
  readonly row: number;
  private readonly action: RunnableAction;
  /** Its step, read once: actions are of many shapes, and this is asked in every decision. */
  private readonly onStep: RunnableAction['step'];
  private readonly state: number;
  private readonly lockAt: number;
  private readonly restlessAt: number;
  /** Place in the grove's locks from 1; 0 for an action that may be interrupted. */
  private readonly lock: number;

  /** Row −1: the activity is this action alone. */
  constructor(program: ActionProgram, row: number, grove: Grove) {
    this.name = program.action;
    this.lasts = program.lasts;
    this.channel = program.channel === null ? -1 : CHANNELS.indexOf(program.channel);
    this.channelAt = this.channel < 0 ? -1 : grove.channels + this.channel;
    this.row = row;
    this.at = program.lasts ? reserve(grove.layout, ACTION_CELLS + 1) : -1;
    this.action = makeAction(program, this.at);
    this.onStep = this.action.step;
    if (this.at >= 0) grove.actions.set(this.at, this.name);
    this.state = grove.state;
    this.lockAt = grove.lockAt;
    this.restlessAt = grove.restlessAt;
    this.lock = program.uninterrupted ? grove.locks.push(this) : 0;
  }

  start(host: Host): Status {
    if (!this.lasts) {
      if (this.channelAt >= 0) host.memory[this.channelAt] = 0;
      host.recorder?.did(this.name);
      const status = this.action.start(host);
      // A tree does not report it, and it must not become the reason of what fails next.
      if (this.row >= 0) host.reason = null;
      return status;
    }
    host.memory[this.at + STARTED] = host.tick;
    host.memory[this.at + RESULT] = NO_RESULT;
    if (this.channelAt >= 0) host.memory[this.channelAt] = this.at;
    if (this.row >= 0) host.recorder?.began(this.state, this.name, this.row);
    const status = this.action.start(host);
    if (status !== RUNNING) this.end(host, status);
    else if (this.lock > 0) {
      host.memory[this.lockAt] = this.lock;
      host.memory[this.restlessAt] = 1;
    }
    return status;
  }

  step(host: Host): Status {
    if (this.lock > 0) {
      const known = host.memory[this.at + RESULT];
      if (known !== NO_RESULT) return known as Status;
    }
    return this.carryOn(host);
  }

  private carryOn(host: Host): Status {
    let status: Status;
    if (this.channelAt >= 0 && host.memory[this.channelAt] !== this.at) {
      host.reason = because('channelTaken', CHANNELS[this.channel]);
      status = FAILURE;
    } else {
      status = this.onStep === undefined ? RUNNING : this.onStep(host);
    }
    if (status !== RUNNING) this.end(host, status);
    return status;
  }

  /** Goes on without a decision; an end is kept for the decision that follows. */
  stepLocked(host: Host): Status {
    const status = this.carryOn(host);
    if (status !== RUNNING) host.memory[this.at + RESULT] = status;
    return status;
  }

  stop(host: Host): void {
    if (host.memory[this.at + RESULT] !== NO_RESULT) return;
    this.release(host);
    if (this.row >= 0) host.recorder?.ended(this.state, this.name, this.row, 'stopped', null);
  }

  private end(host: Host, status: Status): void {
    this.release(host);
    // An action that is the whole activity is told of, with its reason, as the activity.
    if (this.row < 0) return;
    const { recorder, reason } = host;
    if (status === SUCCESS) recorder?.ended(this.state, this.name, this.row, 'success', null);
    else recorder?.ended(this.state, this.name, this.row, 'failure', reason);
    host.reason = null;
  }

  private release(host: Host): void {
    if (this.lock > 0) host.memory[this.lockAt] = 0;
    if (this.channelAt >= 0) {
      if (host.memory[this.channelAt] !== this.at) return;
      host.memory[this.channelAt] = 0;
    }
    this.action.stop?.(host);
  }
}

/** The node that is an action; its document names it by `do`. */
export const action: NodeKindOf<'do'> = {
  compile: (document, compiling) => {
    const compiled = compiling.action(document);
    return compiled && { kind: 'do', action: compiled };
  },
  make: ({ action: program }, { row, grove }) => new Leaf(program, row, grove),
  children: () => [],
  ends: ({ action: program }, asking) => asking.actionEnds(program),
  leastSeconds: ({ action: { action: name, args } }) =>
    name === 'wait' && typeof args.seconds === 'number' ? args.seconds : 0,
  runsOn: ({ action: { lasts } }) => lasts,
};
