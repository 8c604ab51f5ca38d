import { CHANNELS } from '../../terms/channels.ts';
import { compileFlag } from '../../expression/closures.ts';
import { reserve } from '../cells.ts';
import { heeded, type Guard } from '../heed.ts';
import type { Host } from '../host.ts';
import type { RuleProgram } from '../program.ts';
import { RUNNING, SUCCESS } from '../status.ts';
import type { Grove } from './grove.ts';
import { Leaf } from './leaf.ts';
import type { NodeKindOf } from './node-kind.ts';
import { isRunning, mark, markStopped, readRow, type Behaviour } from './node.ts';

interface Rule {
  row: number;
  /** Null for an `else`. */
  when: Guard | null;
  edge: boolean;
  actions: RuleAction[];
  rows: Rule[];
  otherwise: Rule | null;
  /** Cell of the row's result: a success in each decision it fires in. */
  at: number;
  /** Cell: 1 when the test held at the decision before; −1 before the first. */
  heldAt: number;
}

interface RuleAction {
  leaf: Leaf;
  /** Cell of the action's result. */
  at: number;
}

function makeRule(program: RuleProgram, grove: Grove, rows: number[]): Rule {
  const at = reserve(grove.layout, 1);
  rows[program.row] = at;
  const holds = program.when && compileFlag(program.when.ir);
  return {
    at,
    row: program.row,
    when: holds && program.conduct ? heeded(holds, grove.layout) : holds,
    edge: program.edge,
    actions: program.actions.map((action) => {
      if (action.body.kind !== 'do') throw new Error('The program has a rule without action.');
      rows[action.row] = reserve(grove.layout, 1);
      return { leaf: new Leaf(action.body.action, action.row, grove), at: rows[action.row] };
    }),
    rows: program.rows.map((rule) => makeRule(rule, grove, rows)),
    otherwise: program.otherwise && makeRule(program.otherwise, grove, rows),
    heldAt: reserve(grove.layout, 1, -1),
  };
}

/**
 * If/then rows. All rows are tested each decision on the same facts, before any of them does anything;
 * then those that fire act from top to bottom. A channel belongs to the uppermost row that wants it.
 * Rules never come to an end by themselves.
 */
class Rules implements Behaviour {
  private readonly rules: Rule[];
  private readonly state: number;
  /** Row that uses each channel in this decision; −1 for none. Decisions don't overlap, so one serves all agents. */
  private readonly users = new Int32Array(CHANNELS.length);

  /** Notes in `cells`, by row, where each row's result will stand. */
  constructor(rules: readonly RuleProgram[], grove: Grove, cells: number[]) {
    this.state = grove.state;
    this.rules = rules.map((rule) => makeRule(rule, grove, cells));
  }

  start(host: Host): typeof RUNNING {
    for (const rule of this.rules) this.forget(host, rule);
    return this.step(host);
  }

  private forget(host: Host, rule: Rule): void {
    host.memory[rule.heldAt] = -1;
    for (const { at } of rule.actions) markStopped(host, at);
    for (const inner of rule.rows) this.forget(host, inner);
    if (rule.otherwise) this.forget(host, rule.otherwise);
  }

  step(host: Host): typeof RUNNING {
    for (const rule of this.rules) this.test(host, rule);
    // What ends, ends before anything else begins.
    this.users.fill(-1);
    for (const rule of this.rules) this.each(host, rule, this.giveUp);
    this.users.fill(-1);
    for (const rule of this.rules) this.each(host, rule, this.carryOut);
    return RUNNING;
  }

  private test(host: Host, rule: Rule): void {
    const { memory } = host;
    const holds = rule.when!(host);
    const before = memory[rule.heldAt];
    memory[rule.heldAt] = holds ? 1 : 0;
    this.fire(host, rule, holds && (!rule.edge || before !== 1));
    // The else of an edge row fires when the test turns false, the counterpart of turning true.
    if (rule.otherwise) this.fire(host, rule.otherwise, !holds && (!rule.edge || before !== 0));
  }

  private fire(host: Host, rule: Rule, fires: boolean): void {
    if (fires) {
      mark(host, rule.at, SUCCESS);
      if (rule.edge) host.recorder?.fired(this.state, rule.row);
    }
    for (const inner of rule.rows) {
      if (fires) this.test(host, inner);
      else host.memory[inner.heldAt] = -1;
    }
  }

  /** Goes through the actions of a row and of those below it, from the top. */
  private each(
    host: Host,
    rule: Rule,
    work: (host: Host, rule: Rule, action: RuleAction) => void,
  ): void {
    for (const action of rule.actions) work(host, rule, action);
    for (const inner of rule.rows) this.each(host, inner, work);
    if (rule.otherwise) this.each(host, rule.otherwise, work);
  }

  /** What an edge row has begun goes on to its end; what a level row does stops with the row. */
  private isWanted(host: Host, rule: Rule, action: RuleAction): boolean {
    if (readRow(host.memory[rule.at])?.tick === host.tick) return true;
    return rule.edge && isRunning(host, action.at);
  }

  /** Whether no row above uses the action's channel; from then on this one does. */
  private claims({ leaf }: RuleAction): boolean {
    if (leaf.channel < 0) return true;
    if (this.users[leaf.channel] >= 0) return false;
    this.users[leaf.channel] = leaf.row;
    return true;
  }

  private giveUp = (host: Host, rule: Rule, action: RuleAction): void => {
    const { leaf, at } = action;
    const wanted = this.isWanted(host, rule, action);
    const runs = isRunning(host, at);
    if (wanted && this.claims(action)) return;
    if (wanted) host.recorder?.overruled(this.state, leaf.row, leaf.name, this.users[leaf.channel]);
    if (runs) this.halt(host, leaf, at);
  };

  private carryOut = (host: Host, rule: Rule, action: RuleAction): void => {
    const { leaf, at } = action;
    if (!this.isWanted(host, rule, action) || !this.claims(action)) return;
    mark(host, at, isRunning(host, at) ? leaf.step(host) : leaf.start(host));
  };

  private halt(host: Host, leaf: Leaf, at: number): void {
    leaf.stop(host);
    markStopped(host, at);
  }

  stop(host: Host): void {
    for (let i = this.rules.length - 1; i >= 0; i--) this.stopRule(host, this.rules[i]);
  }

  private stopRule(host: Host, rule: Rule): void {
    if (rule.otherwise) this.stopRule(host, rule.otherwise);
    for (let i = rule.rows.length - 1; i >= 0; i--) this.stopRule(host, rule.rows[i]);
    for (const { leaf, at } of rule.actions) if (isRunning(host, at)) this.halt(host, leaf, at);
  }
}

export const rules: NodeKindOf<'rules'> = {
  compile: (document, compiling) => {
    const rows = compiling.rules(document);
    return rows && { kind: 'rules', rows };
  },
  make: ({ rows }, { grove, cells }) => new Rules(rows, grove, cells),
  // Its rows are no nodes.
  children: () => [],
  ends: () => ({ success: false, failure: false }),
  leastSeconds: () => 0,
  runsOn: () => true,
};
