import {
  namesOf,
  RANGE_FIELDS,
  type Bar,
  type ChoiceDocument,
  type ConsiderationDocument,
  type EachDocument,
  type OptionDocument,
} from '@crooked-lantern/core';

/** What choices, options and curves are called and said to be, for people. */

export function optionTitle({ title, id }: OptionDocument): string {
  return title ?? id;
}

/** A number in a cell: two decimals, without the nought before the point. */
export function shortNumber(value: number): string {
  return value.toFixed(2).replace(/^(-?)0\./, '$1.');
}

/** Why an option does not compete, in a few words. */
export const BAR_WORDS: Record<Bar, string> = {
  guard: 'its guard does not hold',
  conduct: 'a rule of conduct, not obeyed',
  cooldown: 'on cooldown',
  noCandidate: 'no candidate',
  veto: 'vetoed',
  minScore: 'not above the minimum score',
  rank: 'outranked',
};

/** What makes an option strong, a graded row each: “Spacing is far: 0.6”. */
export function gradeWords(
  { grades = [] }: OptionDocument,
  titleOf: (set: string) => string,
): string[] {
  return grades.map(({ when, strength }) => {
    const sets = namesOf(when);
    if (sets.length === 0) return `always: ${strength}`;
    return `${sets.map((set) => `${titleOf(set)} is ${when[set]}`).join(' and ')}: ${strength}`;
  });
}

/** What a simple form has written of an option. */
export function writtenWords(option: OptionDocument, titleOf: (set: string) => string): string {
  const { grades, weight, cooldown } = option;
  return [
    ...gradeWords(option, titleOf),
    ...(!grades && weight !== undefined ? [`weight ${weight}`] : []),
    ...(cooldown ? [`cooldown ${cooldown} s`] : []),
  ].join('; ');
}

/** The agent or thing that an option is weighed for. */
export function eachWords(each: EachDocument): string {
  if ('agents' in each) return `each ${each.agents} agent, as ${each.as}`;
  if ('things' in each) return `each ${each.things}, as ${each.as}`;
  if ('list' in each) return `each of ${each.list}, as ${each.as}`;
  return `${each.places} places within ${each.within} m, as ${each.as}`;
}

/** When and how a choice is made, in one line. */
export function choiceWords({
  every = 0,
  commitment = 0,
  minDuration = 0,
  pick = 'best',
  margin = 0.1,
  combine = 'mean',
  once,
}: ChoiceDocument): string {
  return [
    every > 0 ? `weighs every ${every} s` : 'weighs each decision',
    commitment > 0 ? `keeps its choice unless beaten by ${commitment}` : 'takes whatever is better',
    ...(minDuration > 0 ? [`for ${minDuration} s at least`] : []),
    pick === 'best' ? 'picks the best' : `draws among those within ${margin} of the best`,
    ...(combine === 'mean' ? [] : [`by ${combine}`]),
    ...(once ? ['once'] : []),
  ].join(' · ');
}

/** The range that becomes 0 to 1, as it holds for a consideration. */
export function rangeOf(
  { inputs = {} }: ChoiceDocument,
  { input, from, to }: ConsiderationDocument,
): { from: number; to: number } {
  const named = Object.hasOwn(inputs, input) ? inputs[input] : undefined;
  return {
    from: from ?? named?.from ?? RANGE_FIELDS.from.usual,
    to: to ?? named?.to ?? RANGE_FIELDS.to.usual,
  };
}

/** The expression a consideration looks at. */
export function inputOf({ inputs = {} }: ChoiceDocument, { input }: ConsiderationDocument): string {
  return Object.hasOwn(inputs, input) ? inputs[input].value : input;
}

/** Tints of the options, in the order of the board; lamp stays for what runs. */
const TINTS = ['sight', 'done', 'refuse', 'sound', 'told', 'found', 'harm', 'mute'] as const;

export function tintOf(option: number): string {
  return `var(--${TINTS[option % TINTS.length]})`;
}
