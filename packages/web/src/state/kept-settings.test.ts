import { isObject } from '@crooked-lantern/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readKept } from './kept-settings.ts';

let kept: Map<string, string>;

beforeEach(() => {
  kept = new Map();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  });
});

describe('a kept setting', () => {
  const isSizes = (value: unknown): value is { wide: number } =>
    isObject(value) && typeof value.wide === 'number';
  const usual = { wide: 1 };

  it('is what was kept, and the usual one where nothing was', () => {
    expect(readKept('sizes', isSizes) ?? usual).toBe(usual);
    kept.set('sizes', '{"wide":7}');
    expect(readKept('sizes', isSizes)).toEqual({ wide: 7 });
  });

  it.each(['{', 'null', '[]', '{"wide":"7"}', '"wide"'])(
    'that is faulty is set aside: %s',
    (text) => {
      const warn = vi.spyOn(console, 'warn').mockImplementation(() => {});
      kept.set('sizes', text);
      expect(readKept('sizes', isSizes) ?? usual).toBe(usual);
      expect([...kept]).toEqual([['sizes.faulty', text]]);
      expect(readKept('sizes', isSizes) ?? usual).toBe(usual);
      expect(warn).toHaveBeenCalledTimes(1);
      warn.mockRestore();
    },
  );
});
