import type { Findings } from '../compile/finding.ts';
import type {
  MachineProgram,
  MindProgram,
  NodeBodyProgram,
  NodeProgram,
  NumberProgram,
} from '../mind/program.ts';
import { ACTIONS, type ActionSpec } from '../model/actions.ts';
import { truthOf, type Known } from '../expression/truth.ts';
import { childrenOf, ruleRows } from './walk.ts';

/** Branches that are never reached, composites without children, and repeats without an end. */

/** Which ends a node can come to. */
interface Ends {
  success: boolean;
  failure: boolean;
}

function endsOf(node: NodeProgram, known: Known): Ends {
  const ends = endsOfBody(node, known);
  return node.guard ? { ...ends, failure: true } : ends;
}

function endsOfBody({ body }: NodeProgram, known: Known): Ends {
  switch (body.kind) {
    case 'action': {
      const spec: ActionSpec = ACTIONS[body.action.action];
      const { args, channel, lasts } = body.action;
      // A value that is not known ends even those that never fail otherwise; so does a channel that is taken.
      const open = Object.values(args).some((arg) => typeof arg === 'object');
      const taken = lasts && channel !== null;
      return {
        success: true,
        failure: !spec.fails.startsWith('never') || (lasts && open) || taken,
      };
    }
    case 'condition': {
      const truth = truthOf(body.test.ir, known);
      return { success: truth !== 'never', failure: truth !== 'always' };
    }
    case 'sequence':
    case 'selector': {
      const all = body.children.map((child) => endsOf(child, known));
      const [goOn, decide] =
        body.kind === 'sequence'
          ? (['success', 'failure'] as const)
          : (['failure', 'success'] as const);
      const result = { success: false, failure: false };
      for (const ends of all) {
        if (ends[decide]) result[decide] = true;
        if (!ends[goOn]) return result;
      }
      result[goOn] = true;
      return result;
    }
    case 'parallel': {
      const all = body.children.map((child) => endsOf(child, known));
      return {
        success: all.filter(({ success }) => success).length >= body.successes,
        failure: body.successes > all.length || all.some(({ failure }) => failure),
      };
    }
    case 'random':
      return { success: true, failure: true };
    case 'invert': {
      const { success, failure } = endsOf(body.child, known);
      return { success: failure, failure: success };
    }
    case 'succeed':
    case 'fail': {
      const { success, failure } = endsOf(body.child, known);
      const ends = success || failure;
      return { success: ends && body.kind === 'succeed', failure: ends && body.kind === 'fail' };
    }
    case 'repeat': {
      const child = endsOf(body.child, known);
      const over = body.times > 0 && (child.success || child.failure);
      if (body.until === null) return { success: over, failure: false };
      return { success: child[body.until], failure: over };
    }
    case 'subtree':
      return endsOf(body.child, known);
    case 'delay': {
      const ends = endsOf(body.child, known);
      return typeof body.seconds === 'number' ? ends : { ...ends, failure: true };
    }
    case 'rules':
      return { success: false, failure: false };
    default:
      return { ...endsOf(body.child, known), failure: true };
  }
}

/** Whether it can run on past the decision it starts in. */
function canRun(node: NodeProgram): boolean {
  const { body } = node;
  if (body.kind === 'action') return body.action.lasts;
  if (body.kind === 'delay' || body.kind === 'rules' || body.kind === 'repeat') return true;
  return childrenOf(node).some(canRun);
}

/** A composite that does nothing, or a repeat that never ends: told by itself, so not again by its siblings. */
function isToldAlready({ body }: NodeProgram): boolean {
  if ('children' in body) return body.children.length === 0;
  return isEndless(body);
}

function isEndless(body: NodeBodyProgram): boolean {
  if (body.kind !== 'repeat' || body.times > 0 || body.until !== null) return false;
  return !canRun(body.child);
}

function checkSiblings(node: NodeProgram, known: Known, findings: Findings): void {
  const { body } = node;
  if (body.kind !== 'sequence' && body.kind !== 'selector') return;
  const goOn = body.kind === 'sequence' ? 'success' : 'failure';
  const stop = body.children.findIndex((child) => !endsOf(child, known)[goOn]);
  if (stop < 0) return;
  const cause = body.children[stop];
  if (isToldAlready(cause)) return;
  const ends = endsOf(cause, known);
  const never =
    ends.success || ends.failure
      ? `never ${goOn === 'success' ? 'succeeds' : 'fails'}`
      : 'never ends';
  body.children.slice(stop + 1).forEach((child) => {
    if (child.preempts) return;
    findings.warning(
      'unreachable',
      child.path,
      `“${child.title}” is never reached: “${cause.title}” before it ${never}. Put it first, or give that one a guard.`,
    );
  });
}

/** Least seconds until a node can succeed; Infinity where it can't. */
function leastTime({ body }: NodeProgram): number {
  const fixed = (value: NumberProgram) => (typeof value === 'number' ? value : 0);
  switch (body.kind) {
    case 'action': {
      const { seconds } = body.action.args;
      return body.action.action === 'wait' && typeof seconds === 'number' ? seconds : 0;
    }
    case 'sequence':
      return body.children.reduce((sum, child) => sum + leastTime(child), 0);
    case 'selector':
    case 'random':
      return Math.min(Infinity, ...body.children.map(leastTime));
    case 'parallel': {
      const times = body.children.map(leastTime).sort((a, b) => a - b);
      return times[body.successes - 1] ?? Infinity;
    }
    case 'delay':
      return fixed(body.seconds) + leastTime(body.child);
    case 'repeat': {
      const rounds = body.until === null ? Math.max(1, body.times) : 1;
      const { body: inner } = body.child;
      const between = inner.kind === 'cooldown' ? fixed(inner.seconds) : 0;
      return rounds * leastTime(body.child) + (rounds - 1) * between;
    }
    case 'subtree':
    case 'succeed':
    case 'limit':
    case 'chance':
    case 'cooldown':
    case 'timeout':
      return leastTime(body.child);
    default:
      return 0;
  }
}

function checkTime(node: NodeProgram, findings: Findings): void {
  const { body } = node;
  if (body.kind !== 'timeout' || typeof body.seconds !== 'number') return;
  const needed = leastTime(body.child);
  if (needed === Infinity || needed <= body.seconds) return;
  findings.warning(
    'coupled',
    `${node.path}.seconds`,
    `This gives up after ${body.seconds} s, but what is inside needs ${Number(needed.toFixed(2))} s at least: it never succeeds. Give it more time, or cool down and wait for less.`,
  );
}

function checkNode(node: NodeProgram, known: Known, findings: Findings): void {
  const { body } = node;
  if ('children' in body && body.children.length === 0) {
    findings.warning(
      'noChildren',
      node.path,
      `This ${body.kind} has no children, so it does nothing. Add one, or remove it.`,
    );
  }
  if (body.kind === 'rules' && ruleRows(node).length === 0) {
    findings.warning('noChildren', node.path, 'These rules have no rows, so they do nothing.');
  }
  if (body.kind === 'repeat' && isEndless(body)) {
    findings.warning(
      'endless',
      node.path,
      `“${body.child.title}” is over at once, so this repeats it each decision and never ends. Say how many “times”, or “until” what.`,
    );
  }
  checkSiblings(node, known, findings);
  checkTime(node, findings);
  for (const child of childrenOf(node)) checkNode(child, known, findings);
}

/** States that wait for the end of an activity that never ends. */
function checkDone(
  machine: MachineProgram,
  paths: ReadonlyMap<string, string>,
  known: Known,
  findings: Findings,
): void {
  for (const { id, title, kind, activity, leaves } of machine.states) {
    if (!activity || kind !== 'atomic') continue;
    const ends = endsOf(activity.root, known);
    leaves.forEach((leave, i) => {
      const { on } = machine.transitions[leave];
      const waits =
        (on === 'done' && !ends.success && !ends.failure) ||
        (on === 'done.success' && !ends.success) ||
        (on === 'done.failure' && !ends.failure);
      if (!waits) return;
      const never = on === 'done' ? 'ends' : on === 'done.success' ? 'succeeds' : 'fails';
      findings.warning(
        'endless',
        `${paths.get(id)}.leaves[${i}].on`,
        `This waits for “${on}”, but what “${title}” does (${activity.name}) never ${never}. Let it end, or leave for another reason.`,
      );
    });
  }
}

export function checkTrees(
  mind: MindProgram,
  paths: ReadonlyMap<string, string>,
  known: Known,
  findings: Findings,
): void {
  for (const { activity } of mind.machine.states) {
    if (activity) checkNode(activity.root, known, findings);
  }
  checkDone(mind.machine, paths, known, findings);
}
