import { ACTIONS, type ActionName, type ParameterSpec } from '../../model/actions/actions.ts';
import type {
  ActionDocument,
  MemoryType,
  Name,
  NodeDocument,
  ParameterType,
  ProjectDocument,
  TreeCallDocument,
} from '../../model/documents.ts';
import { directingMinds, groupNames } from '../../model/groups.ts';
import { mindsOf } from '../../model/kinds.ts';
import { namesOf } from '../../model/names/names.ts';
import { nodeSpec, type NodeFieldSpec, type NodeKindName } from '../../model/documents.ts';

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
  const bodies = namesOf(document.archetypes)
    .map((name) => document.archetypes[name])
    .filter((archetype) => mindsOf(archetype).includes(mind));
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
