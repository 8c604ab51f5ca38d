import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  ACTIONS,
  NODES,
  projectSchema,
  toJsonSchema,
  type JsonSchema,
  type NodeSpec,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';

/** Which editor each field of a mind is changed in: a file, and words of it that do it. */
const CLAIMS: Record<string, [file: string, words: string]> = {
  'mind.title': ['mind-sheet.tsx', "at('title')"],
  'mind.note': ['mind-sheet.tsx', "at('note')"],
  'mind.memory': ['memory/memory-sheet.tsx', "'memory', name, field"],
  'mind.cadence': ['mind-sheet.tsx', "at('cadence')"],
  'mind.channels': ['mind-sheet.tsx', "at('channels')"],
  'mind.machine': ['plan/state-plan.tsx', 'STATE_COMMANDS'],
  'mind.activity': ['states/state-sheet.tsx', 'WholeActivity'],
  'mind.trees': ['mind-list.tsx', 'part="trees"'],
  'mind.rules': ['mind-list.tsx', 'part="rules"'],
  'mind.cadence.every': ['mind-sheet.tsx', '{ every }'],
  'mind.cadence.on': ['mind-sheet.tsx', "{ on: 'event' }"],
  'key.type': ['memory/memory-sheet.tsx', "set('type'"],
  'key.unit': ['memory/memory-sheet.tsx', "set('unit'"],
  'key.scope': ['memory/memory-sheet.tsx', "set('scope'"],
  'key.default': ['memory/memory-sheet.tsx', "set('default'"],
  'key.forgetAfter': ['memory/memory-sheet.tsx', "set('forgetAfter'"],
  'key.capacity': ['memory/memory-sheet.tsx', "set('capacity'"],
  'key.rate': ['memory/memory-sheet.tsx', "text('rate'"],
  'key.min': ['memory/memory-sheet.tsx', "text('min'"],
  'key.max': ['memory/memory-sheet.tsx', "text('max'"],
  'key.note': ['memory/memory-sheet.tsx', "set('note'"],
  'machine.initial': ['states/use-state-work.tsx', 'setInitial'],
  'machine.states': ['states/use-state-work.tsx', 'insertState'],
  'state.id': ['states/state-sheet.tsx', "part: 'states'"],
  'state.title': ['states/state-sheet.tsx', 'change({ title'],
  'state.note': ['states/state-sheet.tsx', 'change({ note'],
  'state.kind': ['states/use-state-work.tsx', 'change: { kind }'],
  'state.initial': ['states/use-state-work.tsx', 'setInitial'],
  'state.states': ['states/use-state-work.tsx', 'parent: state'],
  'state.entry': ['states/state-sheet.tsx', 'list="entry"'],
  'state.activity': ['states/state-rows.tsx', 'change({ activity'],
  'state.exit': ['states/state-sheet.tsx', 'list="exit"'],
  'state.transitions': ['states/state-sheet.tsx', 'LeaveRow'],
  'state.attention': ['states/state-sheet.tsx', 'change({ attention })'],
  'transition.to': ['states/leave-row.tsx', 'change({ to: id })'],
  'transition.on': ['states/leave-row.tsx', 'change({ on })'],
  'transition.when': ['states/leave-row.tsx', 'change({ when })'],
  'transition.for': ['states/leave-row.tsx', 'change({ for: value })'],
  'transition.after': ['states/leave-row.tsx', 'change({ after: value })'],
  'transition.urgent': ['states/leave-row.tsx', 'change({ urgent'],
  'transition.internal': ['states/leave-row.tsx', 'change({ internal'],
  'transition.do': ['states/leave-row.tsx', 'change({ do: next })'],
  'transition.note': ['states/leave-row.tsx', 'change({ note'],
  'tree.title': ['part-sheet.tsx', "at('title')"],
  'tree.note': ['part-sheet.tsx', "at('note')"],
  'tree.parameters': ['part-sheet.tsx', "'parameters', name"],
  'tree.root': ['part-sheet.tsx', '<Outline'],
  'ruleSet.title': ['part-sheet.tsx', "at('title')"],
  'ruleSet.note': ['part-sheet.tsx', "at('note')"],
  'ruleSet.rows': ['part-sheet.tsx', '<Outline'],
  'rule.title': ['outline/row-fields.tsx', 'rule.title'],
  'rule.note': ['outline/row-view.tsx', 'note: text'],
  'rule.when': ['outline/row-fields.tsx', 'value={rule.when}'],
  'rule.edge': ['outline/row-fields.tsx', 'onSet({ edge'],
  'rule.conduct': ['outline/row-fields.tsx', 'RowConduct value={rule.conduct}'],
  'rule.do': ['outline/row-work.ts', '[RULE, ...actions]'],
  'rule.rows': ['outline/row-work.ts', 'nest: onOne(nestRow)'],
  'rule.else': ['outline/row-work.ts', 'else: ['],
  'rule.off': ['outline/row-work.ts', 'off: switchRows'],
  'node.title': ['outline/row-fields.tsx', 'onSet({ title'],
  'node.note': ['outline/row-view.tsx', 'note: text'],
  'node.when': ['outline/row-guard.tsx', 'onSet({ when: text })'],
  'node.holds': ['outline/row-guard.tsx', 'MODE_FIELDS'],
  'node.preempts': ['outline/row-guard.tsx', 'MODE_FIELDS'],
  'node.conduct': ['outline/row-guard.tsx', 'onSet({ conduct'],
  'node.weight': ['outline/row-fields.tsx', 'onSet({ weight'],
  'node.off': ['outline/row-work.ts', 'off: switchRows'],
  'mind.choices': ['mind-list.tsx', 'part="choices"'],
  'choice.title': ['../weigh/sheets/choice-sheet.tsx', "set('title')"],
  'choice.note': ['../weigh/sheets/choice-sheet.tsx', "set('note')"],
  'choice.combine': ['../weigh/sheets/choice-sheet.tsx', "choose('combine')"],
  'choice.pick': ['../weigh/sheets/choice-sheet.tsx', "choose('pick')"],
  'choice.margin': ['../weigh/sheets/choice-sheet.tsx', "number('margin')"],
  'choice.every': ['../weigh/sheets/choice-sheet.tsx', "number('every')"],
  'choice.commitment': ['../weigh/sheets/choice-sheet.tsx', "number('commitment')"],
  'choice.minDuration': ['../weigh/sheets/choice-sheet.tsx', "number('minDuration')"],
  'choice.minScore': ['../weigh/sheets/choice-sheet.tsx', "number('minScore')"],
  'choice.once': ['../weigh/sheets/choice-sheet.tsx', "set('once')"],
  'choice.inputs': ['../weigh/sheets/choice-sheet.tsx', '<Inputs'],
  'choice.options': ['../weigh/board/use-board-menus.ts', 'addOption'],
  'option.id': ['../weigh/sheets/option-sheet.tsx', "put('id'"],
  'option.conduct': ['../weigh/sheets/option-sheet.tsx', "put('conduct'"],
  'option.title': ['../weigh/sheets/option-sheet.tsx', "put('title'"],
  'option.note': ['../weigh/sheets/option-sheet.tsx', "put('note'"],
  'option.when': ['../weigh/sheets/option-sheet.tsx', "put('when'"],
  'option.rank': ['../weigh/sheets/option-sheet.tsx', "put('rank'"],
  'option.weight': ['../weigh/sheets/option-sheet.tsx', 'field="weight"'],
  'option.cost': ['../weigh/sheets/option-sheet.tsx', 'field="cost"'],
  'option.cooldown': ['../weigh/sheets/option-sheet.tsx', "put('cooldown'"],
  'option.each': ['../weigh/sheets/option-sheet.tsx', "put('each'"],
  'option.considerations': ['../weigh/board/board.tsx', 'addConsideration'],
  'option.grades': ['../weigh/sheets/option-sheet.tsx', '<GradedRows'],
  'option.does': ['../weigh/sheets/option-sheet.tsx', "put('does'"],
  'option.off': ['../weigh/board/use-board-menus.ts', "at, 'off'"],
  'consideration.title': ['../weigh/curve/curve-sheet.tsx', "set('title')"],
  'consideration.note': ['../weigh/curve/curve-sheet.tsx', "set('note')"],
  'consideration.input': ['../weigh/curve/curve-sheet.tsx', "set('input')"],
  'consideration.from': ['../weigh/curve/curve-sheet.tsx', "set('from')"],
  'consideration.to': ['../weigh/curve/curve-sheet.tsx', "set('to')"],
  'consideration.curve': ['../weigh/curve/curve-sheet.tsx', "set('curve')"],
  'consideration.importance': ['../weigh/curve/curve-sheet.tsx', "set('importance')"],
  'consideration.veto': ['../weigh/curve/curve-sheet.tsx', "set('veto')"],
  'bandSet.title': ['../weigh/sheets/bands-sheet.tsx', "'title']"],
  'bandSet.note': ['../weigh/sheets/bands-sheet.tsx', "'note']"],
  'bandSet.input': ['../weigh/sheets/bands-sheet.tsx', "'input']"],
  'bandSet.bands': ['../weigh/sheets/bands-sheet.tsx', "'bands', set.bands.length]"],
  'action.uninterrupted': ['actions/action-line.tsx', 'uninterrupted: true'],
};

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
const fields = (part: JsonSchema): string[] => Object.keys(at(part, 'properties'));

const mind = entry(at(schema, 'properties', 'minds'));
const machine = at(mind, 'properties', 'machine');
const state = entry(at(machine, 'properties', 'states'));
const rule = entry(at(entry(at(mind, 'properties', 'rules')), 'properties', 'rows'));
const choice = entry(at(mind, 'properties', 'choices'));
const option = entry(at(choice, 'properties', 'options'));
const PARTS: Record<string, string[]> = {
  mind: fields(mind),
  key: fields(entry(at(mind, 'properties', 'memory'))),
  machine: fields(machine),
  state: fields(state),
  transition: fields(entry(at(state, 'properties', 'transitions'))),
  tree: fields(entry(at(mind, 'properties', 'trees'))),
  ruleSet: fields(entry(at(mind, 'properties', 'rules'))),
  rule: fields(rule),
  choice: fields(choice),
  option: fields(option),
  consideration: fields(entry(at(option, 'properties', 'considerations'))),
  bandSet: fields(entry(at(schema, 'properties', 'bands'))),
};

/** Forms of nodes and actions: each says its fields by itself. */
const variants = resolve(at(entry(at(mind, 'properties', 'trees')), 'properties', 'root')).anyOf as
  JsonSchema[] | undefined;

describe('every field of a mind', () => {
  it('is claimed by an editor that has the words for it', () => {
    const wanted = Object.entries(PARTS).flatMap(([part, names]) =>
      names.map((name) => `${part}.${name}`),
    );
    expect(wanted.length).toBeGreaterThan(40);
    expect(wanted.filter((field) => !(field in CLAIMS))).toEqual([]);
    for (const [field, [file, words]] of Object.entries(CLAIMS)) {
      const text = readFileSync(path.join(import.meta.dirname, file), 'utf8');
      expect(text.includes(words), `${field}: ${words} in ${file}`).toBe(true);
    }
  });

  it('of a node or an action stands in the tables that rows are made from, or is claimed', () => {
    expect(variants!.length).toBeGreaterThan(20);
    const ofTables = new Set(
      Object.values<NodeSpec>(NODES).flatMap((spec) => Object.keys(spec.fields)),
    );
    for (const action of Object.values(ACTIONS))
      for (const parameter of Object.keys(action.parameters)) ofTables.add(parameter);
    const all = new Set(variants!.flatMap((variant) => fields(variant)));
    const left = [...all].filter(
      (field) =>
        field !== 'do' &&
        !ofTables.has(field) &&
        !(`node.${field}` in CLAIMS) &&
        !(`action.${field}` in CLAIMS),
    );
    expect(left).toEqual([]);
  });
});
