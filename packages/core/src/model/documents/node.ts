import { suggestion } from '../names/nearest-name.ts';
import {
  described,
  either,
  EXPRESSION,
  isObject,
  list,
  NAME,
  named,
  needed,
  NOTE,
  number,
  numberOrExpression,
  part,
  plainNumber,
  record,
  TITLE,
  TRUE,
  word,
  type PartSchema,
  type Schema,
  type TypeOf,
  type TypeOfFields,
} from '../schema/schema.ts';
import { actionVariants, type ActionDocument } from './action.ts';
import {
  NODE_KINDS,
  nodeSpec,
  NODES,
  type NodeFieldSpec,
  type NodeKindName,
} from './node-kinds.ts';
import type { Expression, Name, NumberOrExpression } from './shared.ts';

/** The nodes of trees, each told by the one field that names its kind. */

/** How likely a child of `random` is drawn, against the weights of the others. */
export const CHILD_WEIGHT = number(
  'Weight',
  '',
  [0, 1_000_000],
  'how likely it is drawn, against the weights of the other children of `random`',
  { usual: 1 },
);

/** What any node may carry besides what makes it the node it is. */
const COMMON_FIELDS = {
  title: TITLE,
  note: NOTE,
  when: described(EXPRESSION, 'guard: must hold before the node starts'),
  holds: described(
    TRUE,
    'the guard is looked at each decision while the node runs; when false, the node is stopped and fails',
  ),
  preempts: described(
    TRUE,
    'while a later sibling of a selector runs, this node takes over when its guard turns true',
  ),
  weight: numberOrExpression(CHILD_WEIGHT),
  conduct: described(
    TRUE,
    'a rule of conduct: each time its guard begins to hold, the archetype’s `obedience` is the probability that it is obeyed',
  ),
  off: described(TRUE, 'switched off, with all below it: as if it were not there'),
};
export type NodeFields = TypeOfFields<typeof COMMON_FIELDS>;

type NodeField<S> = S extends { kind: 'node' }
  ? NodeDocument
  : S extends { kind: 'nodes' }
    ? NodeDocument[]
    : S extends { kind: 'expression' }
      ? Expression
      : S extends { kind: 'number' }
        ? NumberOrExpression
        : S extends { kind: 'whole' }
          ? number
          : S extends { kind: 'flag' }
            ? true
            : S extends { kind: 'result' }
              ? 'success' | 'failure'
              : S extends { kind: 'name' }
                ? Name
                : TypeOf<typeof callArguments>;
/** Whether a field may be left out. */
type Optional<S> = S extends { kind: 'flag' | 'result' | 'arguments' } | { required: false }
  ? true
  : false;
type NodeForm<F> = {
  [K in keyof F as Optional<F[K]> extends true ? never : K]: NodeField<F[K]>;
} & { [K in keyof F as Optional<F[K]> extends true ? K : never]?: NodeField<F[K]> };

/** What makes a node the node it is, by the field that names it. */
export type NodeForms = { do: ActionDocument } & {
  [Kind in NodeKindName]: NodeForm<(typeof NODES)[Kind]['fields']>;
};
export type NodeDocument = NodeFields & NodeForms[keyof NodeForms];

/** An expression, or a number, for each parameter of a tree. */
export const callArguments = record(
  numberOrExpression(plainNumber({ about: 'the parameter’s value' })),
);

/** A node of a tree, or of an option. */
export const nodeSchema = named<NodeDocument>('node', () => anyNode);

function fieldSchema(spec: NodeFieldSpec): Schema {
  switch (spec.kind) {
    case 'node':
      return needed(nodeSchema);
    case 'nodes':
      // A composite without children has the right form; that it does nothing is a finding.
      return needed(list(nodeSchema, 64));
    case 'expression':
      return needed(EXPRESSION);
    case 'number': {
      const { minimum, maximum, about } = spec;
      return needed(numberOrExpression(plainNumber({ minimum, maximum, about })));
    }
    case 'whole': {
      const { minimum, maximum, about, required } = spec;
      const whole = plainNumber({ whole: true, minimum, maximum, about });
      return required ? needed(whole) : whole;
    }
    case 'flag':
      return TRUE;
    case 'result':
      return word(['success', 'failure']);
    case 'name':
      return needed(NAME);
    case 'arguments':
      return callArguments;
  }
}

const nodes = new Map<string, PartSchema>(
  NODE_KINDS.map((kind) => {
    const own = Object.entries<NodeFieldSpec>(NODES[kind].fields).map(([field, spec]) => [
      field,
      fieldSchema(spec),
    ]);
    return [kind, part({ ...COMMON_FIELDS, ...Object.fromEntries(own) }, { tag: kind })];
  }),
);
const actions = actionVariants(COMMON_FIELDS);

const KEYS: readonly string[] = ['do', ...NODE_KINDS];

const anyNode: Schema = either([...nodes.values(), ...actions.variants], (value) => {
  if (!isObject(value)) return { refused: 'must be a node: an object' };
  const kinds = Object.keys(value).filter((key) => KEYS.includes(key));
  if (kinds.length === 1) return kinds[0] === 'do' ? actions.pick(value) : nodes.get(kinds[0])!;
  if (kinds.length > 1) {
    return {
      refused: `is several nodes at once (${kinds.join(', ')}): put one inside the other`,
    };
  }
  const own = Object.keys(value).find((key) => !Object.hasOwn(COMMON_FIELDS, key));
  return {
    refused: `is no node: it needs one of ${KEYS.join(', ')}.${own === undefined ? '' : suggestion(own, KEYS)}`,
  };
});

/** The kind of a node by the field that names it; `do` for an action. */
export function kindOfNode(of: object): NodeKindName | 'do' {
  return 'do' in of ? 'do' : NODE_KINDS.find((kind) => kind in of)!;
}

/** Whether a part of a document is a node, or an action as one. An option can have a `cooldown` too, but it has an id. */
export function isNode(part: unknown): part is NodeDocument {
  if (!isObject(part) || 'id' in part) return false;
  return 'do' in part || NODE_KINDS.some((kind) => kind in part);
}

/** The nodes directly below one, in order. */
export function childrenOfNode(of: NodeDocument): readonly NodeDocument[] {
  const kind = kindOfNode(of);
  if (kind === 'do') return [];
  const below = (of as unknown as Record<string, unknown>)[kind];
  const { kind: what } = Object.values(nodeSpec(kind).fields)[0];
  if (what === 'nodes') return below as NodeDocument[];
  return what === 'node' ? [below as NodeDocument] : [];
}
