import { isObject } from '@crooked-lantern/core';
import { readKept } from '../state/kept-settings.ts';

/** Shortcuts that were changed, by the command's id; kept in the browser. */

const STORED_AS = 'crooked-lantern.keys';

export type OwnKeys = Readonly<Record<string, string>>;

function isOwnKeys(value: unknown): value is OwnKeys {
  return isObject(value) && Object.values(value).every((keys) => typeof keys === 'string');
}

export function readOwnKeys(): OwnKeys {
  return readKept(STORED_AS, isOwnKeys) ?? {};
}

export function keepOwnKeys(keys: OwnKeys): void {
  localStorage.setItem(STORED_AS, JSON.stringify(keys));
}

const MODIFIERS = ['Control', 'Shift', 'Alt', 'Meta'];

/** A key press as shortcuts are written: `$mod+Shift+KeyZ`; null for a modifier alone. */
export function shortcutOf(
  event: Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>,
): string | null {
  if (MODIFIERS.includes(event.key)) return null;
  const held = [
    (event.ctrlKey || event.metaKey) && '$mod',
    event.altKey && 'Alt',
    event.shiftKey && 'Shift',
  ];
  return [...held.filter(Boolean), event.code].join('+');
}
