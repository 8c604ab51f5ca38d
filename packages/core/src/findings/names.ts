import { mapNode } from '../model/minds/walk-mind.ts';
import { namesIn } from '../expression/names-in.ts';
import { namesOf } from '../model/names/names.ts';
import {
  RAISED_BY_ENDS,
  RAISED_BY_SENSES,
  raisedByModes,
  raisedForDirector,
  SAYING_ACTIONS,
} from '../model/raised-events.ts';
import { directingMinds } from '../model/groups.ts';
import { kindsOf, mindsOf } from '../model/kinds.ts';
import type { Findings } from '../compile/finding.ts';
import { matchesEvent } from '../mind/machine/select.ts';
import type { StackProgram } from '../mind/program.ts';
import type {
  MindDocument,
  NodeDocument,
  ProjectDocument,
  StateDocument,
} from '../model/documents.ts';
import { childrenOfNode } from '../model/documents.ts';
import type { Program } from '../world/program/program.ts';
import { argumentsOf, keysUsed } from './walk.ts';

/** Names that lead nowhere: keys never written or read, trees and minds nothing calls, events nothing hears. */

/** How a key is used by every mind that shares it. */
interface Use {
  read: boolean;
  written: boolean;
}

function useOfKey(stacks: readonly StackProgram[], name: string, scope: string): Use {
  const use: Use = { read: false, written: false };
  for (const stack of stacks) {
    const index = stack.keys.findIndex((key) => key.name === name && key.scope === scope);
    if (index < 0) continue;
    const { read, written } = keysUsed(stack);
    use.read ||= read.has(index);
    use.written ||= written.has(index);
  }
  return use;
}

function hasDefault(mind: MindDocument, key: string): boolean {
  const { type, default: given } = mind.memory![key];
  return given !== undefined || type === 'flag' || type.startsWith('list');
}

function checkMemory(name: string, mind: MindDocument, program: Program, findings: Findings): void {
  for (const key of namesOf(mind.memory ?? {})) {
    const scope = mind.memory![key].scope ?? 'self';
    const sharing = program.stacks.filter(
      ({ minds }) => scope !== 'self' || minds.some((other) => other.name === name),
    );
    const { read, written } = useOfKey(sharing, key, scope);
    const path = `minds.${name}.memory.${key}`;
    if (read && !written && !hasDefault(mind, key)) {
      findings.warning(
        'neverWritten',
        path,
        `“${key}” is read but nothing ever writes it: add a remember action, or a default.`,
      );
    } else if (!read) {
      findings.warning(
        'unused',
        path,
        written
          ? `“${key}” is written but nothing ever reads it.`
          : `“${key}” is neither written nor read.`,
        written
          ? undefined
          : { title: `Remove ${key}`, command: { command: 'removeKey', mind: name, key } },
      );
    }
  }
}

/** What the activities, trees, rules and choices of a mind call. */
interface Called {
  trees: Set<string>;
  rules: Set<string>;
  choices: Set<string>;
}

function collectNode(node: NodeDocument, called: Called): void {
  if ('tree' in node) called.trees.add(String(node.tree));
  if ('rules' in node) called.rules.add(String(node.rules));
  if ('choice' in node) called.choices.add(String(node.choice));
  for (const child of childrenOfNode(node)) collectNode(child, called);
}

function collectStates(states: readonly StateDocument[], called: Called): void {
  for (const { activity, states: inner } of states) {
    if (activity) collectNode(activity as NodeDocument, called);
    collectStates(inner ?? [], called);
  }
}

function calledIn(mind: MindDocument): Called {
  const called: Called = { trees: new Set(), rules: new Set(), choices: new Set() };
  if (mind.activity) collectNode(mind.activity as NodeDocument, called);
  collectStates(mind.machine?.states ?? [], called);
  // A tree that only an uncalled tree calls is told of when that one is gone.
  for (const { root } of Object.values(mind.trees ?? {})) collectNode(root, called);
  for (const { options } of Object.values(mind.choices ?? {}))
    for (const { does } of options) if (does) collectNode(does, called);
  return called;
}

/** What the expressions of a tree name, of dotted names the first part. */
function namesUsed(root: NodeDocument): Set<string> {
  const used = new Set<string>();
  mapNode(
    root,
    { path: [], tree: null },
    {
      expression(source) {
        for (const { name } of namesIn(source)) used.add(name.split('.')[0]);
        return source;
      },
      name: (_, name) => name,
    },
  );
  return used;
}

function checkCalls(name: string, mind: MindDocument, findings: Findings): void {
  const called = calledIn(mind);
  for (const tree of namesOf(mind.trees ?? {})) {
    const path = `minds.${name}.trees.${tree}`;
    if (!called.trees.has(tree)) {
      findings.warning('unused', path, `Nothing calls the tree “${tree}”.`, {
        title: `Remove the tree ${tree}`,
        command: { command: 'removeTree', mind: name, tree },
      });
    }
    const { root, parameters } = mind.trees![tree];
    const used = namesUsed(root);
    for (const parameter of namesOf(parameters ?? {})) {
      if (used.has(parameter)) continue;
      findings.warning(
        'unused',
        `${path}.parameters.${parameter}`,
        `The tree never uses its parameter “${parameter}”. Remove it, there and where the tree is called.`,
      );
    }
  }
  for (const rules of namesOf(mind.rules ?? {})) {
    if (called.rules.has(rules)) continue;
    findings.warning(
      'unused',
      `minds.${name}.rules.${rules}`,
      `Nothing calls the rules “${rules}”.`,
      {
        title: `Remove the rules ${rules}`,
        command: { command: 'removeRules', mind: name, rules },
      },
    );
  }
  for (const choice of namesOf(mind.choices ?? {})) {
    if (called.choices.has(choice)) continue;
    findings.warning(
      'unused',
      `minds.${name}.choices.${choice}`,
      `Nothing calls the choice “${choice}”.`,
      {
        title: `Remove the choice ${choice}`,
        command: { command: 'removeChoice', mind: name, choice },
      },
    );
  }
}

/** What the game around them raises, for every agent or for the director. */
function eventsOfGame({ stacks, texts, director, archetypes, ground }: Program): string[] {
  const doing = (action: string) => stacks.flatMap((each) => argumentsOf(each, action));
  const modes = [
    ...(director.schedule?.modes ?? []).map(({ word }) => word),
    ...doing('setMode').map(({ mode }) => Number(mode)),
  ];
  return [
    ...doing('announce').map(({ event }) => String(event)),
    ...raisedByModes(modes.map((word) => texts[word])).map(({ event }) => event),
    ...raisedForDirector(
      archetypes.map(({ name }) => name),
      director.waves.map(({ name }) => name),
      ground.zones.map(({ name }) => name),
    ).map(({ event }) => event),
  ];
}

/** What an agent with this stack may get: its own, what it is told, and the noises of all. */
function eventsRaised(stack: StackProgram, program: Program): string[] {
  const { stacks, texts } = program;
  const said = Object.entries(SAYING_ACTIONS).flatMap(([action, { sense, word }]) =>
    stacks
      .flatMap((each) => argumentsOf(each, action))
      .map((args) => `${sense}.${texts[args[word] as number]}`),
  );
  return [
    ...[...RAISED_BY_ENDS, ...RAISED_BY_SENSES].map(({ event }) => event),
    ...argumentsOf(stack, 'raise').map(({ event }) => String(event)),
    ...said,
    ...eventsOfGame(program),
  ];
}

/** Whether anything raises an event that the descriptor takes, for a mind wherever it runs. */
export function hearing(mind: string, program: Program): (descriptor: string) => boolean {
  const raised = program.stacks
    .filter(({ minds }) => minds.some(({ name }) => name === mind))
    .flatMap((stack) => eventsRaised(stack, program));
  const events = [...new Set(raised)];
  const known = new Map<string, boolean>();
  return (descriptor) => {
    let heard = known.get(descriptor);
    if (heard === undefined) {
      const words = descriptor.split('.');
      heard = events.some((event) => matchesEvent(words, event));
      known.set(descriptor, heard);
    }
    return heard;
  };
}

/** Every `raise` in a part of a document: its event, and its path. */
function raisesIn(value: unknown, path: string, found: { event: string; path: string }[] = []) {
  if (typeof value !== 'object' || value === null) return found;
  if ('do' in value && value.do === 'raise' && 'event' in value)
    found.push({ event: String(value.event), path });
  if (Array.isArray(value))
    for (const [i, entry] of value.entries()) raisesIn(entry, `${path}[${i}]`, found);
  else for (const [key, inner] of Object.entries(value)) raisesIn(inner, `${path}.${key}`, found);
  return found;
}

function checkEvents(name: string, mind: MindDocument, program: Program, findings: Findings): void {
  const listening = program.stacks
    .filter(({ minds }) => minds.some((other) => other.name === name))
    .flatMap(({ minds }) => minds);
  const onEvent = listening.some(({ cadence }) => cadence.kind === 'event');
  const heard = [
    ...new Set(listening.flatMap(({ machine }) => machine.transitions.map(({ on }) => on))),
  ];
  for (const { event, path } of onEvent ? [] : raisesIn(mind, `minds.${name}`)) {
    if (heard.some((on) => on !== '' && matchesEvent(on.split('.'), event))) continue;
    findings.warning('unused', path, `No transition takes the event “${event}” that this raises.`);
  }
}

export function checkNames(program: Program, document: ProjectDocument, findings: Findings): void {
  const directing = directingMinds(document);
  for (const name of namesOf(document.minds)) {
    const mind = document.minds[name];
    checkMemory(name, mind, program, findings);
    checkCalls(name, mind, findings);
    checkEvents(name, mind, program, findings);
    const isUsed =
      directing.has(name) ||
      kindsOf(document).some(({ archetype }) => mindsOf(archetype).includes(name));
    if (!isUsed) {
      findings.warning(
        'unused',
        `minds.${name}`,
        `No archetype has the mind “${mind.title}”, so nothing runs it.`,
      );
    }
  }
}
