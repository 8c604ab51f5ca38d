/** Shortcuts that were changed, by the command's id; kept in the browser. */

const STORED_AS = 'crooked-lantern.keys';

export type OwnKeys = Readonly<Record<string, string>>;

export function readOwnKeys(): OwnKeys {
  try {
    const kept = JSON.parse(localStorage.getItem(STORED_AS) ?? '{}') as Record<string, unknown>;
    return Object.fromEntries(
      Object.entries(kept).filter(
        (entry): entry is [string, string] => typeof entry[1] === 'string',
      ),
    );
  } catch (error) {
    console.warn('Shortcuts of your own could not be read; the usual ones hold.', error);
    return {};
  }
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
