import type { Findings } from '../compile/finding.ts';
import { childrenOf, kindOfBody } from '../mind/nodes/index.ts';
import type { Asking, Ends } from '../mind/nodes/node-kind.ts';
import type {
  ActionProgram,
  MachineProgram,
  MindProgram,
  NodeBodyProgram,
  NodeProgram,
  RuleProgram,
} from '../mind/program.ts';
import { ACTIONS, type ActionSpec } from '../model/actions/actions.ts';
import { truthOf, type Known } from '../expression/truth.ts';
import { MOST_LEARNED } from '../terms/limits.ts';
import { ruleRows } from './walk.ts';

/** Branches that are never reached, composites without children, and repeats without an end. */

/** Which ends an action can come to. */
function actionEnds({ action, args, channel, lasts }: ActionProgram): Ends {
  const spec: ActionSpec = ACTIONS[action];
  // A value that is not known ends even those that never fail otherwise; so does a channel that is taken.
  const open = Object.values(args).some((arg) => typeof arg === 'object');
  const taken = lasts && channel !== null;
  return { success: true, failure: spec.canFail || (lasts && open) || taken };
}

/** A row that fires each decision would learn a place each time; what it learned first is lost. */
function checkLearning({ edge, actions }: RuleProgram, findings: Findings): void {
  if (edge) return;
  for (const { body, path } of actions) {
    if (body.kind !== 'do' || body.action.action !== 'learnWaypoint') continue;
    findings.warning(
      'learnsAlways',
      path,
      `This learns a waypoint in each decision while the row holds, and a route learns ${MOST_LEARNED} at most. Let the row fire once, on its edge.`,
    );
  }
}

/** Looks at nodes under what is known of the project. */
function asking(known: Known): Asking {
  const all: Asking = {
    ends: (node) => {
      const ends = kindOfBody(node.body).ends(node.body, all);
      return node.guard ? { ...ends, failure: true } : ends;
    },
    leastSeconds: ({ body }) => kindOfBody(body).leastSeconds(body, all),
    actionEnds,
    truth: ({ ir }) => truthOf(ir, known),
  };
  return all;
}

/** Whether it can run on past the decision it starts in. */
function canRun(node: NodeProgram): boolean {
  return kindOfBody(node.body).runsOn(node.body) || childrenOf(node).some(canRun);
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

function checkSiblings(node: NodeProgram, ask: Asking, findings: Findings): void {
  const { body } = node;
  if (body.kind !== 'sequence' && body.kind !== 'selector') return;
  const goOn = body.kind === 'sequence' ? 'success' : 'failure';
  const stop = body.children.findIndex((child) => !ask.ends(child)[goOn]);
  if (stop < 0) return;
  const cause = body.children[stop];
  if (isToldAlready(cause)) return;
  const ends = ask.ends(cause);
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

function checkTime(node: NodeProgram, ask: Asking, findings: Findings): void {
  const { body } = node;
  if (body.kind !== 'timeout' || typeof body.seconds !== 'number') return;
  const needed = ask.leastSeconds(body.child);
  if (needed === Infinity || needed <= body.seconds) return;
  findings.warning(
    'coupled',
    `${node.path}.seconds`,
    `This gives up after ${body.seconds} s, but what is inside needs ${Number(needed.toFixed(2))} s at least: it never succeeds. Give it more time, or cool down and wait for less.`,
  );
}

function checkNode(node: NodeProgram, ask: Asking, findings: Findings): void {
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
  for (const row of ruleRows(node)) checkLearning(row, findings);
  if (body.kind === 'repeat' && isEndless(body)) {
    findings.warning(
      'endless',
      node.path,
      `“${body.child.title}” is over at once, so this repeats it each decision and never ends. Say how many “times”, or “until” what.`,
    );
  }
  checkSiblings(node, ask, findings);
  checkTime(node, ask, findings);
  for (const child of childrenOf(node)) checkNode(child, ask, findings);
}

/** States that wait for the end of an activity that never ends. */
function checkDone(
  machine: MachineProgram,
  paths: ReadonlyMap<string, string>,
  ask: Asking,
  findings: Findings,
): void {
  for (const { id, title, kind, activity, transitions } of machine.states) {
    if (!activity || kind !== 'atomic') continue;
    const ends = ask.ends(activity.root);
    transitions.forEach((leave, i) => {
      const { on } = machine.transitions[leave];
      const waits =
        (on === 'done' && !ends.success && !ends.failure) ||
        (on === 'done.success' && !ends.success) ||
        (on === 'done.failure' && !ends.failure);
      if (!waits) return;
      const never = on === 'done' ? 'ends' : on === 'done.success' ? 'succeeds' : 'fails';
      findings.warning(
        'endless',
        `${paths.get(id)}.transitions[${i}].on`,
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
  const ask = asking(known);
  for (const { activity } of mind.machine.states) {
    if (activity) checkNode(activity.root, ask, findings);
  }
  checkDone(mind.machine, paths, ask, findings);
}
