import type { KeyboardEvent } from 'react';

/** A key press as tables of keys write it: `Alt+ArrowUp`, `Ctrl+d`, `/`. */
export function pressed(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const held = [
    (event.ctrlKey || event.metaKey) && 'Ctrl',
    event.altKey && 'Alt',
    // A sign that takes Shift on some keyboards is the sign itself.
    event.shiftKey && (event.key.length > 1 || /[a-z]/i.test(event.key)) && 'Shift',
  ];
  return [...held.filter(Boolean), key].join('+');
}

type KeyTable = Readonly<Record<string, { name: string; keys: readonly string[] }>>;

/** Which entry of a table of commands a key press means; null for none. */
export function commandPressed<T extends KeyTable>(table: T, event: KeyboardEvent): keyof T | null {
  const press = pressed(event);
  return Object.keys(table).find((id) => table[id].keys.includes(press)) ?? null;
}

const SHOWN: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Delete: 'Del',
};

/** A key as people read it. */
export function keyShown(key: string): string {
  return key
    .split('+')
    .map((part) => SHOWN[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join('+');
}
