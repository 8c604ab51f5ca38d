import type { Channel } from '../terms/channels.ts';
import type { Findings } from '../compile/finding.ts';
import type { MindProgram, NodeProgram, StackProgram } from '../mind/program.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { kindsOf } from '../model/kinds.ts';
import type { Program } from '../world/program/program.ts';
import { statePaths } from './state-paths.ts';
import { childrenOf } from '../mind/nodes/index.ts';
import { allActions, archetypesWith, nodesBelow } from './walk.ts';

/** Parts that run side by side and want the same part of the body. */

/** The channels that actions of a node hold on to. */
function channelsOf(node: NodeProgram): Set<Channel> {
  return new Set(
    nodesBelow(node).flatMap(({ body }) =>
      body.kind === 'do' && body.action.lasts && body.action.channel !== null
        ? [body.action.channel]
        : [],
    ),
  );
}

function shared(a: ReadonlySet<Channel>, b: ReadonlySet<Channel>): Channel[] {
  return [...a].filter((channel) => b.has(channel));
}

/** What two minds of one agent fight over. */
function checkMinds(
  stack: StackProgram,
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  const uses = stack.minds.map((mind) => {
    const actions = allActions(mind).filter(({ channel }) => channel !== null);
    const of = (list: typeof actions) => new Set(list.map(({ channel }) => channel!));
    return {
      name: mind.name,
      title: mind.title,
      any: of(actions),
      lasting: of(actions.filter(({ lasts }) => lasts)),
    };
  });
  for (const { path, archetype, overrides } of kindsOf(document)) {
    if (overrides && !overrides.mind && !overrides.minds) continue;
    if (!archetypesWith(stack, program).some((kind) => kind.path === path)) continue;
    uses.forEach((mind, i) => {
      for (const other of uses.slice(0, i)) {
        const fought = new Set([
          ...shared(mind.lasting, other.any),
          ...shared(other.lasting, mind.any),
        ]);
        for (const channel of fought) {
          const place = archetype.minds?.indexOf(mind.name) ?? 0;
          findings.warning(
            'conflict',
            `${path}.minds[${Math.max(0, place)}]`,
            `“${other.title}” and “${mind.title}” both use the ${channel}: each takes them from the other, which then fails. Leave the ${channel} to one of them.`,
          );
        }
      }
    });
  }
}

function checkParallels(node: NodeProgram, findings: Findings): void {
  if (node.body.kind === 'parallel') {
    const uses = node.body.children.map(channelsOf);
    node.body.children.forEach((child, i) => {
      const before = uses.findIndex((other, j) => j < i && shared(other, uses[i]).length > 0);
      if (before < 0) return;
      const [channel] = shared(uses[before], uses[i]);
      const first = (node.body as { children: NodeProgram[] }).children[before];
      findings.warning(
        'conflict',
        child.path,
        `“${first.title}” and “${child.title}” run side by side and both use the ${channel}: the later one takes them, and the other fails.`,
      );
    });
  }
  for (const child of childrenOf(node)) checkParallels(child, findings);
}

/** Activities that run at the same time: of states one inside the other, and of parallel regions. */
function checkStates(
  mind: MindProgram,
  paths: ReadonlyMap<string, string>,
  findings: Findings,
): void {
  const { states } = mind.machine;
  const uses = states.map(({ activity }) => (activity ? [...channelsOf(activity.root)] : []));
  /** By parallel state: of each region the first state that uses a channel. */
  const first = new Map<number, { region: number; state: number; channel: Channel }[]>();
  states.forEach((state, index) => {
    for (const channel of uses[index]) {
      const others = [];
      for (let inner = index, s = state.parent; s >= 0; inner = s, s = states[s].parent) {
        if (uses[s].includes(channel)) others.push(s);
        if (states[s].kind !== 'parallel') continue;
        const users = first.get(s) ?? [];
        first.set(s, users);
        const alike = users.filter((user) => user.channel === channel);
        others.push(...alike.filter(({ region }) => region !== inner).map((user) => user.state));
        if (!alike.some(({ region }) => region === inner))
          users.push({ region: inner, state: index, channel });
      }
      for (const other of others.sort((a, b) => a - b)) {
        findings.warning(
          'conflict',
          `${paths.get(state.id)}.activity`,
          `“${states[other].title}” and “${state.title}” are active together and both use the ${channel}: the later one takes them, and the other fails. Leave the ${channel} to one of them.`,
        );
      }
    }
  });
}

export function checkChannels(
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  for (const stack of program.stacks) {
    checkMinds(stack, program, document, findings);
    for (const mind of stack.minds) {
      const { machine } = document.minds[mind.name];
      if (machine) checkStates(mind, statePaths(machine, `minds.${mind.name}.machine`), findings);
      for (const { activity } of mind.machine.states) {
        if (activity) checkParallels(activity.root, findings);
      }
    }
  }
}
