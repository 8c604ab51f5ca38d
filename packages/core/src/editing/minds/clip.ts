import { namesIn } from '../../expression/names-in.ts';
import type {
  ActionDocument,
  MemoryKeyDocument,
  MindDocument,
  Name,
  NodeDocument,
  ProjectDocument,
  RuleDocument,
  ChoiceDocument,
  RulesDocument,
  StateDocument,
  TransitionDocument,
  TreeDocument,
} from '../../model/documents.ts';
import { clipFromVersion1 } from '../../model/file/migrate.ts';
import { PROJECT_FORMAT, PROJECT_VERSION } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { freshIn } from '../../model/names/fresh-name.ts';
import { withoutUndefined } from '../../terms/without-undefined.ts';
import { findState, idsOf, withFreeIds } from './change-machine.ts';
import { CommandError, type DocumentCommand, type DocumentPath } from '../commands/commands.ts';
import { meansKey } from './mentions.ts';
import { formOf } from './row-places.ts';
import { rowsAt } from './rows.ts';
import { addMind } from './whole-minds.ts';
import {
  mapAction,
  mapChoice,
  mapNode,
  mapRule,
  mapState,
  mapTransition,
  type Visitor,
  type Where,
} from '../../model/minds/walk-mind.ts';

/**
 * Parts of minds as text, in the words of the project file: what is copied can be pasted into another mind,
 * another project, a file or a message, and back. What it needs of the mind it comes from goes along.
 */

export const CLIP_FORMAT = 'crooked-lantern/clip';

/** What of a mind is called by name. */
export interface Declarations {
  memory?: Record<Name, MemoryKeyDocument>;
  trees?: Record<Name, TreeDocument>;
  rules?: Record<Name, RulesDocument>;
  choices?: Record<Name, ChoiceDocument>;
}

export type ClipContent =
  | { nodes: NodeDocument[] }
  | { rows: RuleDocument[] }
  | { actions: ActionDocument[]; on: 'entry' | 'exit' }
  | { transitions: TransitionDocument[] }
  | { states: StateDocument[] }
  /** Names among what is declared along with it. */
  | { keys: Name[] }
  | { tree: Name }
  | { ruleSet: Name }
  | { choice: Name }
  | { mind: MindDocument };

export type Clip = {
  format: typeof CLIP_FORMAT;
  version: 2;
  /** What the content refers to, as it is declared where it comes from. */
  needs?: Declarations;
} & ClipContent;

/** Everything content refers to in the mind it is from, and what that refers to in turn. */
function needsOf(mind: MindDocument, content: ClipContent): Declarations {
  const found = {
    memory: new Map<Name, MemoryKeyDocument>(),
    trees: new Map<Name, TreeDocument>(),
    rules: new Map<Name, RulesDocument>(),
    choices: new Map<Name, ChoiceDocument>(),
  };
  const visitor: Visitor = {
    expression: (source, where) => {
      for (const { name } of namesIn(source))
        if (Object.hasOwn(mind.memory ?? {}, name) && meansKey(mind, name, where)) key(name);
      return source;
    },
    name: (kind, name) => {
      if (kind === 'key' || kind === 'list') key(name);
      if (kind === 'tree') tree(name);
      if (kind === 'rules') ruleSet(name);
      if (kind === 'choice') choice(name);
      return name;
    },
  };
  const here: Where = { path: [], tree: null };
  const key = (name: Name) => {
    const declared = mind.memory?.[name];
    if (declared) found.memory.set(name, declared);
  };
  const tree = (name: Name) => {
    const declared = mind.trees?.[name];
    if (!declared || found.trees.has(name)) return;
    found.trees.set(name, declared);
    mapNode(declared.root, { path: [], tree: name }, visitor);
  };
  const ruleSet = (name: Name) => {
    const declared = mind.rules?.[name];
    if (!declared || found.rules.has(name)) return;
    found.rules.set(name, declared);
    for (const row of declared.rows) mapRule(row, here, visitor);
  };
  const choice = (name: Name) => {
    const declared = mind.choices?.[name];
    if (!declared || found.choices.has(name)) return;
    found.choices.set(name, declared);
    mapChoice(declared, here, visitor);
  };
  if ('nodes' in content) for (const node of content.nodes) mapNode(node, here, visitor);
  if ('rows' in content) for (const row of content.rows) mapRule(row, here, visitor);
  if ('actions' in content) for (const action of content.actions) mapAction(action, here, visitor);
  if ('states' in content) for (const state of content.states) mapState(state, here, visitor);
  if ('transitions' in content)
    for (const leave of content.transitions) mapTransition(leave, here, visitor);
  if ('keys' in content) content.keys.forEach(key);
  if ('tree' in content) tree(content.tree);
  if ('ruleSet' in content) ruleSet(content.ruleSet);
  if ('choice' in content) choice(content.choice);
  const record = <T>(map: Map<Name, T>) => (map.size > 0 ? Object.fromEntries(map) : undefined);
  return withoutUndefined({
    memory: record(found.memory),
    trees: record(found.trees),
    rules: record(found.rules),
    choices: record(found.choices),
  });
}

/** A part of a mind as text for the clipboard. */
export function clipText(document: ProjectDocument, mind: Name, content: ClipContent): string {
  const needs = needsOf(document.minds[mind], content);
  const clip: Clip = {
    format: CLIP_FORMAT,
    version: 2,
    ...content,
    ...(Object.keys(needs).length > 0 && { needs }),
  };
  return `${JSON.stringify(clip, null, 2)}\n`;
}

/** Rows of a tree or of rules; null where they are of several forms. */
export function rowsContent(
  document: ProjectDocument,
  paths: readonly DocumentPath[],
): ClipContent | null {
  const forms = new Set(paths.map(formOf));
  const values = rowsAt(document, paths);
  if (forms.size !== 1) return null;
  const [form] = forms;
  if (form === 'node' || form === 'action') return { nodes: values as NodeDocument[] };
  return form === 'rule' ? { rows: values as RuleDocument[] } : null;
}

/** A mind in which the content stands where content of its kind can stand, to be held against the schema. */
function asMind(content: ClipContent, needs: Declarations): MindDocument {
  if ('mind' in content) return content.mind;
  const states: StateDocument[] = 'states' in content ? content.states : [{ id: 'start' }];
  const [first] = states;
  if ('actions' in content) states[0] = { ...first, entry: content.actions };
  if ('transitions' in content) states[0] = { ...first, transitions: content.transitions };
  return withoutUndefined({
    title: 'Clip',
    machine: { initial: first?.id ?? 'start', states },
    memory: needs.memory,
    trees: {
      ...needs.trees,
      ...('nodes' in content && { clip: { root: { sequence: content.nodes } } }),
    },
    rules: { ...needs.rules, ...('rows' in content && { clip: { rows: content.rows } }) },
  });
}

const CONTENT = [
  'nodes',
  'rows',
  'actions',
  'transitions',
  'states',
  'keys',
  'tree',
  'ruleSet',
  'mind',
] as const;

/** Whether a text claims to be a clip: false for foreign text. */
export function looksLikeClip(text: string): boolean {
  return text.slice(0, 400).includes(CLIP_FORMAT);
}

/** Reads what was copied. Throws a {@link CommandError} that says what is wrong with it. */
export function readClip(text: string): Clip {
  let value: Record<string, unknown> | null;
  try {
    value = JSON.parse(text) as typeof value;
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw new CommandError(`What was copied can’t be read as JSON: ${error.message}.`);
  }
  if (typeof value !== 'object' || value === null || value.format !== CLIP_FORMAT)
    throw new CommandError('What was copied is no part of a mind.');
  if (value.version === 1) value = clipFromVersion1(value);
  if (value.version !== 2)
    throw new CommandError('What was copied comes from a newer version of this application.');
  const kinds = CONTENT.filter((kind) => Object.hasOwn(value, kind));
  if (kinds.length !== 1)
    throw new CommandError(`What was copied must have one of ${CONTENT.join(', ')}.`);
  const { needs = {} } = value as { needs?: Declarations };
  const wrong = faultsIn(value as unknown as ClipContent, needs);
  if (wrong !== null) throw new CommandError(`What was copied is wrong: ${wrong}`);
  return value as unknown as Clip;
}

function faultsIn(content: ClipContent, needs: Declarations): string | null {
  try {
    const body = { radius: 0.3, acceleration: 10, turnRate: 360 };
    const read = readProject({
      format: PROJECT_FORMAT,
      version: PROJECT_VERSION,
      title: 'Clip',
      minds: { clip: asMind(content, needs) },
      archetypes: {
        nobody: { title: 'Placeholder', faction: 'none', body, gaits: { walk: 1 }, gait: 'walk' },
      },
      grounds: {
        none: { title: 'None', width: 10, height: 10, walls: [], routes: {}, agents: {} },
      },
      start: { ground: 'none' },
    });
    if (read.ok) return null;
    const [{ path, message }] = read.faults;
    return `${path.replace(/^minds\.clip\.?/, '')} ${message}`.trim();
  } catch (error) {
    // What is not even a list where one belongs can't be put into a mind to be checked there.
    if (error instanceof TypeError) return 'it is not of the form that parts of minds have.';
    throw error;
  }
}

/** References missing from the target mind, states that transitions lead to among them. */
export interface Missing {
  memory: Name[];
  trees: Name[];
  rules: Name[];
  choices: Name[];
  states: Name[];
}

export function missingFor(document: ProjectDocument, mind: Name, clip: Clip): Missing {
  const there = document.minds[mind];
  const absent = (part: keyof Declarations, own: readonly Name[] = []) =>
    Object.keys(clip.needs?.[part] ?? {}).filter(
      (name) => !own.includes(name) && !Object.hasOwn(there?.[part] ?? {}, name),
    );
  const transitions =
    'states' in clip
      ? clip.states.flatMap(allLeaves)
      : 'transitions' in clip
        ? clip.transitions
        : [];
  const own = 'states' in clip ? clip.states.flatMap(idsOf) : [];
  const states = transitions.flatMap(({ to }) =>
    to === undefined || own.includes(to) || findState(there?.machine?.states ?? [], to) ? [] : [to],
  );
  return {
    memory: absent('memory', 'keys' in clip ? clip.keys : []),
    trees: absent('trees', 'tree' in clip ? [clip.tree] : []),
    rules: absent('rules', 'ruleSet' in clip ? [clip.ruleSet] : []),
    choices: absent('choices', 'choice' in clip ? [clip.choice] : []),
    states: [...new Set(states)],
  };
}

function allLeaves(state: StateDocument): TransitionDocument[] {
  return [...(state.transitions ?? []), ...(state.states ?? []).flatMap(allLeaves)];
}

/** Declares in a mind what it lacks of what a clip refers to. */
export function declareMissing(mind: Name, clip: Clip, missing: Missing): DocumentCommand[] {
  return (['memory', 'trees', 'rules', 'choices'] as const).flatMap((part) =>
    missing[part].map((name): DocumentCommand => ({
      command: 'put',
      how: 'set',
      path: ['minds', mind, part, name],
      value: clip.needs![part]![name],
    })),
  );
}

/** Puts states beside one, or among the outermost; transitions that lead nowhere there are left out. */
export function pasteStates(
  document: ProjectDocument,
  mind: Name,
  states: readonly StateDocument[],
  beside: { parent: Name | null; at: number },
): { commands: DocumentCommand[]; first: Name } {
  const machine = document.minds[mind]?.machine;
  if (!machine) throw new CommandError('This mind has no states to put others beside.');
  const ids = states.flatMap(idsOf);
  const twice = ids.find((id, i) => ids.indexOf(id) !== i);
  if (twice !== undefined)
    throw new CommandError(`What was copied has the state “${twice}” more than once.`);
  // All at once, so that what leads from one to another still does.
  const room = withFreeIds(machine, { id: 'clip', states: [...states] });
  const known = new Set([...machine.states.flatMap(idsOf), ...room.states!.flatMap(idsOf)]);
  const leading = (state: StateDocument): StateDocument => {
    const transitions = state.transitions?.filter(({ to }) => to === undefined || known.has(to));
    return withoutUndefined({
      ...state,
      transitions: transitions && transitions.length > 0 ? transitions : undefined,
      states: state.states?.map(leading),
    });
  };
  const commands = room.states!.map(leading).map((state, i): DocumentCommand => ({
    command: 'insertState',
    mind,
    parent: beside.parent,
    at: beside.at + i,
    state,
  }));
  return { commands, first: room.states![0].id };
}

/** Inserts named parts into a mind, or a mind into the project, under free names. */
export function pasteNamed(
  document: ProjectDocument,
  mind: Name,
  clip: Clip,
): { commands: DocumentCommand[]; name: Name } | null {
  if ('mind' in clip) {
    const { name, command } = addMind(document, clip.mind);
    return { commands: [command], name };
  }
  const there = document.minds[mind];
  const declare = (part: keyof Declarations, names: readonly Name[]) => {
    const free = names.map((name) => freshIn(there[part], name));
    const commands = names.map((name, i): DocumentCommand => ({
      command: 'put',
      how: 'set',
      path: ['minds', mind, part, free[i]],
      value: clip.needs?.[part]?.[name],
    }));
    return { commands, name: free[0] ?? '' };
  };
  if ('keys' in clip) return declare('memory', clip.keys);
  if ('tree' in clip) return declare('trees', [clip.tree]);
  if ('ruleSet' in clip) return declare('rules', [clip.ruleSet]);
  if ('choice' in clip) return declare('choices', [clip.choice]);
  return null;
}
