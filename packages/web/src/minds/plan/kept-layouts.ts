import { hashState, isObject } from '@crooked-lantern/core';
import { readKept } from '../../state/kept-settings.ts';
import type { PlanLayout } from './plan-layout.ts';

/**
 * Layouts of state plans, kept in the browser: a plan that has been laid out before is drawn at once, and the
 * layout engine, by far the largest part of the page, need not be loaded for it.
 */

/** Under which the names of what is kept are listed; each name begins with it. */
export const LAYOUTS = 'crooked-lantern.layouts';
/** As many plans as one works on in a while. */
const KEPT = 24;

const nameOf = (key: string) => `${LAYOUTS}.${hashState(key)}`;

function isNames(value: unknown): value is string[] {
  return Array.isArray(value) && value.every((name) => typeof name === 'string');
}

function isLayouts(value: unknown): value is PlanLayout[] {
  return (
    Array.isArray(value) &&
    value.every(
      (plan) =>
        isObject(plan) &&
        [plan.width, plan.height].every(Number.isFinite) &&
        [plan.states, plan.lines].every((list) => Array.isArray(list) && list.every(isObject)),
    )
  );
}

function listed(): string[] {
  return readKept(LAYOUTS, isNames) ?? [];
}

/** What was laid out for this key; null where nothing is kept. */
export function readLayouts(key: string): PlanLayout[] | null {
  return readKept(nameOf(key), isLayouts);
}

/** Keeps what was laid out; of many the oldest goes. */
export function keepLayouts(key: string, layouts: readonly PlanLayout[]): void {
  const name = nameOf(key);
  try {
    const names = [...listed().filter((other) => other !== name), name];
    for (const gone of names.splice(0, Math.max(0, names.length - KEPT)))
      localStorage.removeItem(gone);
    localStorage.setItem(name, JSON.stringify(layouts));
    localStorage.setItem(LAYOUTS, JSON.stringify(names));
  } catch (error) {
    console.warn('The layout of the plan could not be kept; it is made again next time.', error);
  }
}
