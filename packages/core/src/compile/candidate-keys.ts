import { isCandidateKey, keyWidth } from '../mind/memory.ts';
import type { KeyProgram } from '../mind/program.ts';
import type { EachDocument, MindDocument, Name, ParameterType } from '../model/documents.ts';
import { namesOf } from '../model/names/names.ts';
import type { CompileContext } from './context.ts';

/**
 * What an option of a choice is weighed for stands among the keys of memory, so that expressions read it
 * like any other, and edits carry it over. Such a key has dots in its name, which no declared key has.
 */

export function candidateKeyName(choice: string, option: string, as: string): string {
  return `${choice}.${option}.${as}`;
}

type CandidateType = Extract<ParameterType, 'number' | 'text' | 'point' | 'agent' | 'thing'>;

/** Of what type an option’s candidates are; null where they are entries of what is no list. */
function typeOfEach(each: EachDocument, mind: MindDocument): CandidateType | null {
  if ('agents' in each) return 'agent';
  if ('things' in each) return 'thing';
  if ('places' in each) return 'point';
  const type = Object.hasOwn(mind.memory ?? {}, each.list) ? mind.memory![each.list].type : '';
  return type.startsWith('list of ') ? (type.slice('list of '.length) as CandidateType) : null;
}

/** The declared keys of some minds, and behind them those of their options’ candidates. */
export function withCandidates(
  minds: readonly string[],
  { keys: declared, slots: taken }: { keys: KeyProgram[]; slots: number },
  { document }: CompileContext,
): { keys: KeyProgram[]; slots: number } {
  const keys = declared.slice();
  let slots = taken;
  for (const name of minds) {
    const mind = document.minds[name];
    for (const choice of namesOf(mind.choices ?? {}))
      for (const { id, each } of mind.choices![choice].options) {
        const type = each && typeOfEach(each, mind);
        if (!each || !type) continue;
        const slot = slots;
        const stamp = slot + keyWidth(type, 0);
        slots = stamp + 1;
        keys.push({
          name: `${name}.${candidateKeyName(choice, id, each.as)}`,
          type,
          scope: 'self',
          slot,
          stamp,
          initial: type === 'point' || type === 'number' ? NaN : -1,
          forgetAfter: 0,
          capacity: 0,
          rate: 0,
          min: -Infinity,
          max: Infinity,
        });
      }
  }
  return { keys, slots };
}

/** Of one mind, by choice, option and the candidate’s name. */
export function candidateKeys(
  mind: string,
  keys: readonly KeyProgram[],
): ReadonlyMap<string, KeyProgram> {
  const prefix = `${mind}.`;
  return new Map(
    keys
      .filter((key) => isCandidateKey(key) && key.name.startsWith(prefix))
      .map((key) => [key.name.slice(prefix.length), key]),
  );
}

/**
 * The names an expression may use besides those of its mind, with their types: the parameters of the tree it
 * is written in, or what an option is weighed for. `within` names the tree, or an option as `whatNow.2`,
 * counted from 0.
 */
export function namesWithin(
  mind: MindDocument | undefined,
  within: string | undefined,
): Readonly<Record<Name, ParameterType>> {
  if (!mind || within === undefined) return {};
  const [name, index] = within.split('.');
  if (index === undefined) return mind.trees?.[name]?.parameters ?? {};
  const each = mind.choices?.[name]?.options[Number(index)]?.each;
  const type = each && typeOfEach(each, mind);
  return each && type ? { [each.as]: type } : {};
}
