import { beforeEach, describe, expect, it, vi } from 'vitest';
import { keepLayouts, readLayouts } from './kept-layouts.ts';
import type { PlanLayout } from './plan-layout.ts';

const plan = (width: number): PlanLayout => ({ width, height: 1, states: [], lines: [] });
let kept: Map<string, string>;
let full = false;

beforeEach(() => {
  kept = new Map();
  full = false;
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (full) throw new DOMException('full', 'QuotaExceededError');
      kept.set(key, value);
    },
    removeItem: (key: string) => void kept.delete(key),
  });
});

describe('kept layouts', () => {
  it('come back for the same plan, and for no other', () => {
    keepLayouts('one', [plan(1), plan(2)]);
    expect(readLayouts('one')).toEqual([plan(1), plan(2)]);
    expect(readLayouts('two')).toBeNull();
  });

  it('of many, the oldest go; one that is used again is young', () => {
    keepLayouts('first', [plan(1)]);
    for (let i = 0; i < 23; i++) keepLayouts(`plan ${i}`, [plan(i)]);
    keepLayouts('first', [plan(1)]);
    keepLayouts('last', [plan(9)]);
    expect(readLayouts('first')).not.toBeNull();
    expect(readLayouts('plan 0')).toBeNull();
    expect(kept.size).toBe(25);
  });

  it('that can’t be kept or read are done without', () => {
    const warn = vi.spyOn(console, 'warn').mockImplementation(() => {});
    full = true;
    keepLayouts('one', [plan(1)]);
    full = false;
    expect(readLayouts('one')).toBeNull();
    keepLayouts('one', [plan(1)]);
    for (const faulty of ['{', '[null]', '[{"width":"1"}]']) {
      for (const key of kept.keys()) kept.set(key, faulty);
      expect(readLayouts('one')).toBeNull();
      keepLayouts('one', [plan(1)]);
      expect(readLayouts('one')).toEqual([plan(1)]);
    }
    expect(warn).toHaveBeenCalled();
  });
});
