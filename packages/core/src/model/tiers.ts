import type { ProjectDocument, TierChangeDocument, TierDocument } from './documents.ts';
import { stepsOfPath } from './names/path-text.ts';

/** The numbers of a project as they are in one of its tiers. */

/** What is wrong with a change of a tier, where. */
export interface TierFault {
  path: string;
  message: string;
}

/** The number a path leads to; undefined where it leads to no number. */
export function numberAt(document: ProjectDocument, path: string): number | undefined {
  let at: unknown = document;
  for (const step of stepsOfPath(path) ?? [])
    at = (at as Record<string | number, unknown> | undefined)?.[step];
  return typeof at === 'number' ? at : undefined;
}

function withNumber(part: unknown, steps: readonly (string | number)[], value: number): unknown {
  const [step, ...rest] = steps;
  if (step === undefined) return value;
  if (Array.isArray(part))
    return part.map((each, i) => (i === step ? withNumber(each, rest, value) : each));
  const object = part as Record<string, unknown>;
  return { ...object, [step]: withNumber(object[step], rest, value) };
}

/** The tier that is in force; undefined where the project has none. */
export function tierInForce({ tiers = [], start }: ProjectDocument): TierDocument | undefined {
  return tiers.find(({ name }) => name === start.tier) ?? tiers[0];
}

/** What a number is in a tier. */
export function tieredNumber(number: number, { value, factor }: TierChangeDocument): number {
  return value ?? number * (factor ?? 1);
}

/** The document with the numbers of the tier in force, and what of it can’t be. */
export function inTier(document: ProjectDocument): {
  document: ProjectDocument;
  faults: TierFault[];
} {
  const { tiers = [], start } = document;
  const faults: TierFault[] = [];
  const names = new Set<string>();
  tiers.forEach(({ name, changes = [] }, i) => {
    if (names.has(name))
      faults.push({
        path: `tiers[${i}].name`,
        message: `There is a tier “${name}” already. Give one of them another name.`,
      });
    names.add(name);
    changes.forEach(({ path, value, factor }, k) => {
      const at = `tiers[${i}].changes[${k}]`;
      if ((value === undefined) === (factor === undefined))
        faults.push({ path: at, message: 'It takes a value or a factor, one of them.' });
      else if (numberAt(document, path) === undefined || path.startsWith('tiers'))
        faults.push({
          path: `${at}.path`,
          message: `There is no number at “${path}”. It was removed, or has its default: set it first.`,
        });
    });
  });
  if (start.tier !== undefined && !names.has(start.tier))
    faults.push({ path: 'start.tier', message: `There is no tier “${start.tier}”.` });
  const tier = tierInForce(document);
  let inForce = document;
  for (const change of tier?.changes ?? []) {
    const number = numberAt(document, change.path);
    const steps = stepsOfPath(change.path);
    if (number === undefined || !steps || change.path.startsWith('tiers')) continue;
    inForce = withNumber(inForce, steps, tieredNumber(number, change)) as ProjectDocument;
  }
  return { document: inForce, faults };
}
