import { describe, expect, it } from 'vitest';
import { shortcutOf } from './own-keys.ts';

const press = (change: object) => ({
  key: 'z',
  code: 'KeyZ',
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...change,
});

describe('a key press as a shortcut', () => {
  it.each([
    [press({}), 'KeyZ'],
    [press({ ctrlKey: true, shiftKey: true, key: 'Z' }), '$mod+Shift+KeyZ'],
    [press({ metaKey: true }), '$mod+KeyZ'],
    [press({ altKey: true, key: 'F6', code: 'F6' }), 'Alt+F6'],
    [press({ key: 'Shift', code: 'ShiftLeft', shiftKey: true }), null],
  ])('%#', (event, shortcut) => {
    expect(shortcutOf(event)).toBe(shortcut);
  });
});
