import { ACTIONS } from '@crooked-lantern/core';

const TITLES = new Map<string, string>(
  Object.entries(ACTIONS).map(([name, { title }]) => [name, title.toLowerCase()]),
);

/** What people call an action; trees, rules and choices go by the name they are given. */
export function actionTitle(name: string): string {
  return TITLES.get(name) ?? name;
}
