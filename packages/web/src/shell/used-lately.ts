import { readKept } from '../state/kept-settings.ts';

/** Which commands were chosen from the command list lately, the latest first; kept in the browser. */

const STORED_AS = 'crooked-lantern.commands';
const MOST = 5;

function isIds(value: unknown): value is string[] {
  return Array.isArray(value) && value.every((id) => typeof id === 'string');
}

export function readUsedLately(): string[] {
  return readKept(STORED_AS, isIds) ?? [];
}

export function keepUsedLately(id: string): void {
  const before = readUsedLately().filter((other) => other !== id);
  localStorage.setItem(STORED_AS, JSON.stringify([id, ...before].slice(0, MOST)));
}
