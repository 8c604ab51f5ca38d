// @vitest-environment happy-dom
import {
  ACTIONS,
  checkProject,
  differenceOf,
  NODES,
  projectSchema,
  toJsonSchema,
  type Difference,
  type JsonSchema,
  type NodeSpec,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { describe, expect, it, vi } from 'vitest';
import { pressEachControl } from '../testing/controls.fixture.ts';
import { SMALL_PROJECT } from '../testing/small-project.fixture.ts';

/** Every field of a mind can be changed in some form: all controls are pressed, and what they change is collected. */

// What is beside the forms would be rendered with each change, and is not what is tested.
vi.mock('../ground/ground-view.tsx', () => ({ GroundView: () => null }));
vi.mock('../ledger/ledger-panel.tsx', () => ({ LedgerPanel: () => null }));
vi.mock('./plan/state-plan.tsx', () => ({ StatePlan: () => null }));

const FORMS: readonly [address: string, part: string][] = [
  ['minds/keeper?sheet=mind', 'Mind Keeper'],
  ['minds/keeper', 'Minds'],
  ['minds/keeper?sheet=memory', 'Memory of Keeper'],
  ['minds/keeper?state=rounds', 'State rounds'],
  ['minds/keeper?sheet=trees.comb', 'tree Comb'],
  ['minds/keeper?sheet=rules.habits', 'rules Habits'],
  ['minds/lamp', 'Lamp'],
  ['weigh/keeper/next', 'Board'],
  ['weigh/keeper/next', 'Choice What now?'],
  ['weigh/keeper/next?option=one', 'Option one'],
  ['weigh/keeper/next?option=one&cell=0', 'distance(self.post) of one'],
  ['weigh/keeper/graded?option=one', 'Option one'],
  ['weigh/keeper/next?bands=range', 'Bands Range'],
];

const schema = toJsonSchema(projectSchema);
const resolve = (part: JsonSchema): JsonSchema => {
  const ref = part.$ref as string | undefined;
  if (!ref) return part;
  return ref
    .split('/')
    .slice(1)
    .reduce<JsonSchema>((at, step) => at[step] as JsonSchema, schema);
};
const at = (part: JsonSchema, ...steps: string[]): JsonSchema =>
  steps.reduce((now, step) => resolve(resolve(now)[step] as JsonSchema), part);
/** What the entries of a record or a list are. */
const entry = (part: JsonSchema): JsonSchema => {
  const known = resolve(part);
  const patterns = known.patternProperties as Record<string, JsonSchema> | undefined;
  const named = Object.entries(patterns ?? {}).find(([pattern]) => !pattern.startsWith('^x-'))?.[1];
  const more = known.additionalProperties;
  return resolve((named ?? (typeof more === 'object' ? more : known.items)) as JsonSchema);
};
const property = (part: JsonSchema, name: string) => at(part, 'properties', name);

const mind = entry(property(schema, 'minds'));
const machine = property(mind, 'machine');
const state = entry(property(machine, 'states'));
const ruleSet = entry(property(mind, 'rules'));
const choice = entry(property(mind, 'choices'));
const option = entry(property(choice, 'options'));

/** The parts of a mind, and how their paths in the document begin. */
const PARTS: Record<string, { schema: JsonSchema; path: RegExp }> = {
  key: { schema: entry(property(mind, 'memory')), path: /^minds\.\w+\.memory\.\w+/ },
  transition: {
    schema: entry(property(state, 'transitions')),
    path: /^minds\.\w+\.machine\..*transitions\.\d+/,
  },
  state: { schema: state, path: /^minds\.\w+\.machine(?:\.states\.\d+)+/ },
  machine: { schema: machine, path: /^minds\.\w+\.machine/ },
  consideration: {
    schema: entry(property(option, 'considerations')),
    path: /^minds\.\w+\.choices\.\w+\.options\.\d+\.considerations\.\d+/,
  },
  option: { schema: option, path: /^minds\.\w+\.choices\.\w+\.options\.\d+/ },
  choice: { schema: choice, path: /^minds\.\w+\.choices\.\w+/ },
  tree: { schema: entry(property(mind, 'trees')), path: /^minds\.\w+\.trees\.\w+/ },
  rule: {
    schema: entry(property(ruleSet, 'rows')),
    path: /^minds\.\w+\.rules\.\w+(?:\.rows\.\d+)+/,
  },
  ruleSet: { schema: ruleSet, path: /^minds\.\w+\.rules\.\w+/ },
  mind: { schema: mind, path: /^minds\.\w+/ },
  bandSet: { schema: entry(property(schema, 'bands')), path: /^bands\.\w+/ },
};
/** Fields of nodes and actions that stand in no table which rows are made from. */
const ofTables = new Set([
  'do',
  ...Object.values<NodeSpec>(NODES).flatMap((spec) => Object.keys(spec.fields)),
  ...Object.values(ACTIONS).flatMap(({ parameters }) => Object.keys(parameters)),
]);
const variants = at(property(entry(property(mind, 'trees')), 'root')).anyOf as JsonSchema[];
const NODE = {
  fields: [
    ...new Set(variants.flatMap((variant) => Object.keys(at(variant, 'properties')))),
  ].filter((field) => !ofTables.has(field)),
  path: /^minds\.\w+\.trees\.\w+\.root(?:\.\w+\.\d+)*/,
};

const FIELDS = [
  ...Object.entries(PARTS).flatMap(([name, { schema: part }]) =>
    Object.keys(at(part, 'properties')).map((field) => `${name}.${field}`),
  ),
  ...NODE.fields.map((field) => `node.${field}`),
];

/** Fields of all parts that a path of the document leads through. */
function fieldsAt(path: string): string[] {
  const steps = path.split('.');
  return steps.flatMap((field, i) => {
    const before = steps.slice(0, i).join('.');
    return Object.entries({ ...PARTS, node: NODE }).flatMap(([name, part]) =>
      part.path.exec(before)?.[0] === before ? [`${name}.${field}`] : [],
    );
  });
}

/** Paths of what an edit changed. A part with another id counts as gone and as new: its id is what changed. */
function changedPaths(after: ProjectDocument): string[] {
  const found = differenceOf(SMALL_PROJECT, after);
  const paths = (how: Difference['how']) =>
    found.filter((each) => each.how === how).map(({ path }) => path.join('.'));
  const added = paths('added');
  const renamed = paths('removed').filter((path) => added.includes(path));
  return [...found.map(({ path }) => path.join('.')), ...renamed.map((path) => `${path}.id`)];
}

/** Milliseconds after which a form hangs: each of its many controls takes the page a good while to render. */
const SLOW = 600_000;

/** A node with a guard, and a rule. */
const MENUS_OF_ROWS = new Set(['More for row 2 of Comb', 'More for row 2 of Habits']);

/** Commands that move, copy, remove or ask about a whole part set no field of it. */
const OF_WHOLES =
  /^(Copy|Duplicate|Earlier|Edit|Follow|Later|Make it a tree|Move|Put in|Remove (?!the )|Stop|Take away|Why|Wrap)/;

describe('the forms of a mind', () => {
  const changed = new Set<string>();
  const used = new Set<string>();
  /** Rows and transitions are alike: what the menu of one does, that of another does too. */
  const isNew = (name: string, menu = '') => {
    if (OF_WHOLES.test(name)) return false;
    if (name.startsWith('More for row')) return MENUS_OF_ROWS.has(name);
    const like = `${menu} ${name}`.replaceAll(/\btransition \d+/g, 'transition');
    if (used.has(like)) return false;
    used.add(like);
    return true;
  };

  it.each(FORMS)(
    '%s, %s: what is changed is of the right form',
    async (address, part) => {
      await pressEachControl(SMALL_PROJECT, address, part, isNew, (after, steps) => {
        for (const field of changedPaths(after).flatMap(fieldsAt)) changed.add(field);
        const refused = checkProject(after).findings.filter(({ code }) => code === 'form');
        expect(refused, steps.join(' → ')).toEqual([]);
      });
    },
    SLOW,
  );

  it('change every field of it between them', () => {
    expect(FIELDS.length).toBeGreaterThan(100);
    expect(variants.length).toBeGreaterThan(20);
    expect(FIELDS.filter((field) => !changed.has(field))).toEqual([]);
  });
});
