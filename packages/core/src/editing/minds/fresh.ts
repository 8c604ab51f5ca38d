import {
  ACTION_NAMES,
  ACTIONS,
  type ActionName,
  type ParameterSpec,
} from '../../model/actions/actions.ts';
import type {
  ActionDocument,
  GuardDocument,
  MemoryType,
  MoveDocument,
  Name,
  NodeDocument,
  ParameterType,
  ProjectDocument,
  TreeCallDocument,
} from '../../model/documents.ts';
import { directingMinds, groupNames, mayDo } from '../../model/groups.ts';
import { namesOf } from '../../model/names/names.ts';
import { nodeSpec, type NodeFieldSpec, type NodeKindName } from '../../model/documents.ts';
import { nameFromWords } from '../../model/names/fresh-name.ts';
import type { DocumentCommand } from '../commands/commands.ts';
import { archetypesWithMind } from './mentions.ts';
import { set, several } from './row-places.ts';

/** New parts of minds, with values that work or come close, to be changed where they stand. */

const FALLBACK_VALUES: Record<ParameterSpec['kind'], string | number> = {
  number: 1,
  place: 'attention.place',
  agent: 'attention.of',
  thing: 'found.thing',
  gate: 'gate',
  route: 'self.route',
  gait: 'walk',
  key: 'key',
  list: 'list',
  value: 'attention.of',
  text: 'Who is there?',
  word: 'seen',
  mode: 'dusk',
  pattern: '',
  event: 'signal',
  move: 'strike',
  guard: 'guard',
  wave: 'wave',
  score: 'score',
  group: 'group',
};

/** Gaits, moves or guards that every body with this mind has. */
function ofAllBodies(
  document: ProjectDocument,
  mind: Name,
  part: 'gaits' | 'moves' | 'guards',
): Name[] {
  const bodies = archetypesWithMind(document, mind).map((name) => document.archetypes[name]);
  return namesOf(bodies[0]?.[part] ?? {}).filter((name) =>
    bodies.every((body) => Object.hasOwn(body[part] ?? {}, name)),
  );
}

/** Keys an action may name: lists, or those with one value. */
export function keysFor(document: ProjectDocument, mind: Name, kind: 'key' | 'list'): Name[] {
  const memory = document.minds[mind].memory ?? {};
  return namesOf(memory).filter((key) => memory[key].type.startsWith('list') === (kind === 'list'));
}

/** What a parameter that takes a name can be given; null for one that takes something else. */
export function namesFor(
  document: ProjectDocument,
  mind: Name,
  action: string,
  spec: ParameterSpec,
): Name[] | null {
  switch (spec.kind) {
    case 'gait':
      return ofAllBodies(document, mind, 'gaits');
    case 'move':
      return ofAllBodies(document, mind, 'moves');
    case 'guard':
      return ofAllBodies(document, mind, 'guards');
    case 'key':
    case 'list':
      // Whatever is remembered can be forgotten, a list too.
      return action === 'forget'
        ? namesOf(document.minds[mind].memory ?? {})
        : keysFor(document, mind, spec.kind);
    case 'gate':
      return namesOf(document.grounds[document.start.ground]?.gates ?? {});
    case 'wave':
      return namesOf(document.grounds[document.start.ground]?.waves ?? {});
    case 'score':
      return namesOf(document.grounds[document.start.ground]?.scores ?? {});
    case 'group':
      return groupNames(document);
    case 'pattern':
      return [...spec.options!];
    default:
      return null;
  }
}

/** Names that can be made with nothing but a title, where an action needs one and there is none. */
export type MadeByTitle = 'move' | 'guard' | 'score';

const isMadeByTitle = (kind: ParameterSpec['kind']): kind is MadeByTitle =>
  kind === 'move' || kind === 'guard' || kind === 'score';

/** What an action must name and nothing has the name of yet; null where all is there. Keys of memory are asked for by their types. */
export function missingName(
  document: ProjectDocument,
  mind: Name,
  action: ActionName,
): ParameterSpec['kind'] | null {
  for (const spec of Object.values<ParameterSpec>(ACTIONS[action].parameters)) {
    if (!spec.required || spec.kind === 'key' || spec.kind === 'list') continue;
    if (namesFor(document, mind, action, spec)?.length === 0) return spec.kind;
  }
  return null;
}

/** What of that can be made at once: the action is offered, and asks for its title first. */
export function missingByTitle(
  document: ProjectDocument,
  mind: Name,
  action: ActionName,
): MadeByTitle | null {
  const kind = missingName(document, mind, action);
  return kind !== null && isMadeByTitle(kind) ? kind : null;
}

/** The actions an editor offers for a mind: those it may do, and that name nothing which only other pages make. */
export function offeredActions(document: ProjectDocument, mind: Name): ActionName[] {
  return ACTION_NAMES.filter((action) => {
    if (!mayDo(document, mind, action)) return false;
    const kind = missingName(document, mind, action);
    return kind === null || isMadeByTitle(kind);
  });
}

/** A strike to begin with. */
export const FRESH_MOVE: MoveDocument = {
  windUp: 0.4,
  active: 0.15,
  recovery: 0.4,
  reach: 1.2,
  damage: 10,
};
export const FRESH_GUARD: GuardDocument = { raise: 0.15 };

/** Adds something new that actions of a mind can name: a move or a guard to every body with the mind, or a score to the ground. */
export function addNamed(
  document: ProjectDocument,
  mind: Name,
  kind: MadeByTitle,
  title: string,
): DocumentCommand {
  const { start, grounds, archetypes } = document;
  const what = `new ${kind} ${title}`;
  if (kind === 'score') {
    const { scores = {} } = grounds[start.ground];
    const name = nameFromWords(title, scores, kind);
    const path = ['grounds', start.ground, 'scores'];
    return several(what, set(path, { ...scores, [name]: {} }));
  }
  const bodies = archetypesWithMind(document, mind);
  const part = kind === 'move' ? 'moves' : 'guards';
  const taken = Object.assign({}, ...bodies.map((each) => archetypes[each][part])) as object;
  const name = nameFromWords(title, taken, kind);
  const fresh = kind === 'move' ? { ...FRESH_MOVE, title } : { ...FRESH_GUARD, title };
  const commands = bodies.map((each) =>
    set(['archetypes', each, part], { ...archetypes[each][part], [name]: fresh }),
  );
  return several(what, ...commands);
}

/** Expressions that have a type, as far as anything can be guessed. */
const GUESSES: Record<ParameterType, string | number> = {
  number: 1,
  flag: 'true',
  text: "'Hm?'",
  point: 'self.post',
  agent: 'attention.of',
  thing: 'found.thing',
  route: 'self.route',
};

/** An expression for what a key of this type may be given, or added to it. */
export function guessFor(type: MemoryType): string | number {
  return GUESSES[type.replace('list of ', '') as ParameterType];
}

/** A guard to begin with, over what a mind can know: a director has no senses. */
export function freshGuard(document: ProjectDocument, mind: Name): string {
  return directingMinds(document).has(mind) ? 'time > 10' : 'attention.strength > 0.5';
}

/** A number for a new consideration to look at: a director has no body to measure from. */
export function freshInput(document: ProjectDocument, mind: Name): string {
  return directingMinds(document).has(mind) ? 'time' : 'distance(attention.of)';
}

/** An action whose required parameters hold something that works, or comes close. */
export function freshAction(
  document: ProjectDocument,
  mind: Name,
  action: ActionName,
): ActionDocument {
  const result: ActionDocument = { do: action };
  for (const [name, spec] of Object.entries<ParameterSpec>(ACTIONS[action].parameters)) {
    if (!spec.required) continue;
    result[name] = namesFor(document, mind, action, spec)?.[0] ?? FALLBACK_VALUES[spec.kind];
    const key =
      spec.kind === 'value' ? document.minds[mind].memory?.[String(result.key)] : undefined;
    // A value is an expression, also where it is a plain number.
    if (key) result[name] = String(guessFor(key.type));
  }
  return result;
}

/** A call of a tree, with expressions that fit the types of its parameters, as far as that can be guessed. */
export function freshCall(document: ProjectDocument, mind: Name, tree: Name): TreeCallDocument {
  const parameters = document.minds[mind].trees?.[tree]?.parameters ?? {};
  const names = namesOf(parameters);
  if (names.length === 0) return { tree };
  return { tree, with: Object.fromEntries(names.map((name) => [name, GUESSES[parameters[name]]])) };
}

/** What stands for a child that is still to be written. */
export const NOTHING_YET: NodeDocument = { sequence: [] };

/** Whether a node is nothing but room for what is still to be written. */
export function isNothingYet(node: NodeDocument): boolean {
  return Object.keys(node).length === 1 && 'sequence' in node && (node.sequence as []).length === 0;
}

/** What a child or children of a node are given with; null for a kind without. */
export function slotOf(kind: NodeKindName | 'do'): 'node' | 'nodes' | null {
  if (kind === 'do') return null;
  const { kind: what } = Object.values<NodeFieldSpec>(nodeSpec(kind).fields)[0];
  return what === 'node' || what === 'nodes' ? what : null;
}

/** Kinds that are put in with a name: what they call is chosen first. */
type Calling = 'tree' | 'rules' | 'choice';

/** Kinds that can be made without choosing anything first. */
export type FreshKind = Exclude<NodeKindName, Calling>;

/** A node of a kind around what is given; what the kind can't hold is put into a sequence. */
export function freshNode(kind: FreshKind, inside: readonly NodeDocument[] = []): NodeDocument {
  const slot = slotOf(kind);
  const children =
    slot === 'nodes'
      ? { [kind]: [...inside] }
      : slot === 'node'
        ? { [kind]: inside.length === 1 ? inside[0] : { sequence: [...inside] } }
        : {};
  const first = Object.entries<NodeFieldSpec>(nodeSpec(kind).fields).flatMap(([field, spec]) =>
    'first' in spec ? [[field, spec.first]] : [],
  );
  return { ...children, ...Object.fromEntries(first) } as NodeDocument;
}
