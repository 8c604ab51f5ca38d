import type { Bound } from '../expression/scope.ts';
import type {
  ChoiceProgram,
  ConsiderationProgram,
  EachProgram,
  GradeProgram,
  NodeProgram,
  OptionProgram,
} from '../mind/program.ts';
import { STRAIGHT } from '../mind/weigh/curves.ts';
import type {
  ChoiceCallDocument,
  ChoiceDocument,
  ConsiderationDocument,
  EachDocument,
  GradeDocument,
  NodeDocument,
  OptionDocument,
} from '../model/documents.ts';
import { STANCES, THING_KINDS } from '../model/documents.ts';
import { CHOICE_FIELDS } from '../model/documents/choice.ts';
import { numberOf } from '../model/schema/schema.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import { namesOf } from '../model/names/names.ts';
import { cos, radians, sin } from '../numeric/trigonometry.ts';
import { candidateKeyName } from './candidate-keys.ts';
import {
  compileExpression,
  compileNumber,
  unknownFlag,
  type MindScope,
} from './compile-actions.ts';
import type { Place } from './compile-tree.ts';
import { checkConduct, ticks } from './context.ts';

/** Choices: options that are weighed against each other. */

type CompileNode = (place: Place, node: NodeDocument, parent: string) => NodeProgram;

/** Turns from place to place, so that any number of them is spread evenly: the golden angle. */
const GOLDEN_ANGLE = radians(137.50776405003785);

/** So many places around a middle, x, y pairs, the nearest first. */
function offsetsWithin(count: number, reach: number): number[] {
  return Array.from({ length: count }, (_, i) => {
    const away = reach * Math.sqrt((i + 0.5) / count);
    return [away * cos(i * GOLDEN_ANGLE), away * sin(i * GOLDEN_ANGLE)];
  }).flat();
}

function compileEach(
  scope: MindScope,
  choice: string,
  option: OptionDocument,
  each: EachDocument,
  path: string,
): EachProgram | null {
  const { findings, document } = scope.context;
  const { as } = each;
  const key = scope.candidates.get(candidateKeyName(choice, option.id, as));
  if ('list' in each && !key) {
    const declared = scope.document.memory ?? {};
    const message = Object.hasOwn(declared, each.list)
      ? `“${each.list}” is no list but of type ${declared[each.list].type}.`
      : `This mind has no memory key “${each.list}”.${suggestion(each.list, namesOf(declared))}`;
    findings.error(
      'parameter',
      `${path}.list`,
      `${message} An option can be weighed for each entry of a list.`,
    );
  }
  if (scope.keys.has(as) || scope.onGround.has(as) || scope.parameters?.has(as)) {
    findings.error(
      'taken',
      `${path}.as`,
      `“${as}” means something else here already. Call each of them something of its own.`,
    );
  }
  if (!key) return null;
  if ('agents' in each)
    return { name: as, key, of: { kind: 'agents', stance: STANCES.indexOf(each.agents) } };
  if ('things' in each) {
    if (!(THING_KINDS as readonly string[]).includes(each.things)) {
      findings.error(
        'unknownName',
        `${path}.things`,
        `There are no things of kind “${each.things}”.${suggestion(each.things, THING_KINDS)}`,
      );
    }
    const { grounds, start } = document;
    const things = grounds[start.ground]?.things ?? {};
    const indices = namesOf(things).flatMap((name, index) =>
      (things[name].kind ?? 'basket') === each.things ? [index] : [],
    );
    return { name: as, key, of: { kind: 'things', things: indices } };
  }
  if ('list' in each) {
    const { scope: whose, slot } = scope.keys.get(each.list)!;
    return { name: as, key, of: { kind: 'list', scope: whose, slot } };
  }
  const around = compileExpression(scope, each.around ?? 'self.place', `${path}.around`, {
    types: ['point'],
  });
  if (!around) return null;
  return {
    name: as,
    key,
    of: { kind: 'places', offsets: offsetsWithin(each.places, each.within), around },
  };
}

/** The names an option’s expressions may use: those of the mind, and the candidate. */
function scopeOfOption(scope: MindScope, each: EachProgram | null): MindScope {
  if (!each) return scope;
  const { name, key } = each;
  const bound: Bound = {
    type: key.type,
    unit: null,
    expression: {
      source: name,
      ir: {
        op: 'key',
        at: [0, name.length],
        type: key.type,
        scope: 'self',
        slot: key.slot,
        // Its age can't be asked; -1 is the place of no key that a document declares.
        key: -1,
      },
    },
  };
  return { ...scope, parameters: new Map([...(scope.parameters ?? []), [name, bound]]) };
}

function compileConsideration(
  scope: MindScope,
  choice: ChoiceDocument,
  document: ConsiderationDocument,
  index: number,
  path: string,
): ConsiderationProgram | null {
  const { findings } = scope.context;
  const inputs = choice.inputs ?? {};
  const named = Object.hasOwn(inputs, document.input) ? inputs[document.input] : null;
  const source = named?.value ?? document.input;
  const input = compileExpression(scope, source, `${path}.input`, { types: ['number'] });
  const from = document.from ?? named?.from ?? 0;
  const to = document.to ?? named?.to ?? 1;
  if (from === to)
    findings.error(
      'parameter',
      `${path}.${document.to === undefined ? 'from' : 'to'}`,
      `The range from ${from} to ${to} has no width, so nothing becomes 0 or 1. Set another end.`,
    );
  const curve = document.curve ?? STRAIGHT;
  if (curve.shape === 'points')
    curve.points.forEach(([x], i) => {
      if (i > 0 && x <= curve.points[i - 1][0])
        findings.error(
          'parameter',
          `${path}.curve.points[${i}]`,
          `The point at ${x} does not come after the one at ${curve.points[i - 1][0]}. Put the points in the order of x.`,
        );
    });
  if (curve.shape === 'plateau' && curve.from > curve.to)
    findings.error(
      'parameter',
      `${path}.curve.to`,
      `The plateau begins at ${curve.from} and ends before that, at ${curve.to}. Turn the two round.`,
    );
  if (!input) return null;
  return {
    title: document.title ?? document.input,
    index,
    input,
    from,
    to,
    curve,
    importance: document.importance ?? 1,
    veto: document.veto === true,
  };
}

function compileGrade(
  scope: MindScope,
  document: GradeDocument,
  path: string,
): GradeProgram | null {
  const memberships = namesOf(document.when).map((set) =>
    compileExpression(scope, `inBand(${set}, '${document.when[set]}')`, `${path}.when.${set}`, {
      types: ['number'],
    }),
  );
  if (memberships.some((each) => each === null)) return null;
  return { memberships: memberships.flatMap((each) => each ?? []), strength: document.strength };
}

function compileOption(
  place: Place,
  name: string,
  choice: ChoiceDocument,
  option: OptionDocument,
  path: string,
  compileNode: CompileNode,
): OptionProgram | null {
  const { scope: around, outline } = place;
  const { findings, context } = { findings: around.context.findings, context: around.context };
  const each = option.each ? compileEach(around, name, option, option.each, `${path}.each`) : null;
  if (option.each && !each) return null;
  const scope = scopeOfOption(around, each);
  const guard =
    option.when === undefined
      ? null
      : (compileExpression(scope, option.when, `${path}.when`, { types: ['flag'] }) ??
        unknownFlag(option.when));
  const isGraded = choice.combine === 'graded';
  const useless = isGraded ? 'considerations' : 'grades';
  if ((option[useless] ?? []).length > 0)
    findings.error(
      'parameter',
      `${path}.${useless}`,
      isGraded
        ? 'This choice combines by graded rows, so considerations say nothing. Take them away, or combine otherwise.'
        : 'Graded rows count only where the choice combines by “graded”. Take them away, or set that.',
    );
  checkConduct(context, option, path);
  if (!option.does) {
    findings.error(
      'structure',
      path,
      `“${option.title ?? option.id}” has nothing to do. Say under “does” what is done when it is picked.`,
    );
    return null;
  }
  const considerations = (option.considerations ?? []).map((each, i) =>
    compileConsideration(scope, choice, each, i, `${path}.considerations[${i}]`),
  );
  const grades = (option.grades ?? []).map((grade, i) =>
    compileGrade(scope, grade, `${path}.grades[${i}]`),
  );
  return {
    id: option.id,
    title: option.title ?? option.id,
    path,
    guard,
    conduct: guard !== null && option.conduct === true,
    rank: option.rank ?? 0,
    weight: compileNumber(scope, option.weight ?? 1, `${path}.weight`),
    cost: compileNumber(scope, option.cost ?? 0, `${path}.cost`),
    cooldownTicks: ticks(context, option.cooldown ?? 0),
    each,
    considerations: considerations.flatMap((each) => each ?? []),
    grades: grades.flatMap((each) => each ?? []),
    node: compileNode({ scope, outline, path: `${path}.does` }, option.does, ''),
  };
}

/** The choice a call names; null, with findings, where it can't run. */
export function compileChoice(
  place: Place,
  call: ChoiceCallDocument,
  compileNode: CompileNode,
): ChoiceProgram | null {
  const { scope, outline, path } = place;
  const { findings, document } = { findings: scope.context.findings, document: scope.document };
  const choices = document.choices ?? {};
  if (!Object.hasOwn(choices, call.choice)) {
    findings.error(
      'unknownName',
      `${path}.choice`,
      `This mind has no choice “${call.choice}”.${suggestion(call.choice, namesOf(choices))}`,
    );
    return null;
  }
  const mark = `?${call.choice}`;
  if (outline.calls.includes(mark)) {
    findings.error(
      'structure',
      `${path}.choice`,
      `“${call.choice}” calls itself, which would never end. Let an option do something else.`,
    );
    return null;
  }
  scope.called.add(mark);
  const choice = choices[call.choice];
  const at = `minds.${scope.mind}.choices.${call.choice}`;
  const ids = new Set<string>();
  choice.options.forEach(({ id }, i) => {
    if (ids.has(id))
      findings.error(
        'taken',
        `${at}.options[${i}].id`,
        `There is an option “${id}” already. Give one of them another id.`,
      );
    ids.add(id);
  });
  const inner = { ...outline, calls: [...outline.calls, mark] };
  const options = choice.options.flatMap((option, i) => {
    if (option.off) return [];
    const compiled = compileOption(
      { ...place, outline: inner },
      call.choice,
      choice,
      option,
      `${at}.options[${i}]`,
      compileNode,
    );
    return compiled ? [compiled] : [];
  });
  outline.rows = inner.rows;
  const number = (field: 'margin' | 'every' | 'commitment' | 'minDuration' | 'minScore') =>
    numberOf(choice, field, CHOICE_FIELDS[field]);
  return {
    name: call.choice,
    title: choice.title ?? call.choice,
    combine: choice.combine ?? 'mean',
    weighted: choice.pick === 'weighted',
    margin: number('margin'),
    everyTicks: ticks(scope.context, number('every')),
    commitment: number('commitment'),
    minDurationTicks: ticks(scope.context, number('minDuration')),
    minScore: number('minScore'),
    once: choice.once === true,
    options,
  };
}
