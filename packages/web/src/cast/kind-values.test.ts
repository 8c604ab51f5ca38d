import { withOverrides, type ArchetypeDocument } from '@crooked-lantern/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { overridden, valueAt, withField, withOverride, type FieldPath } from './kind-values.ts';

const warden: ArchetypeDocument = {
  title: 'Warden',
  faction: 'wardens',
  reaction: 0.2,
  body: { radius: 0.3, acceleration: 10, turnRate: 360 },
  gaits: { walk: 2 },
  gait: 'walk',
  hearing: { threshold: 0.1 },
};

describe('a field of an archetype', () => {
  it('is set and taken away, and an empty part with it', () => {
    expect(withField(warden, ['reaction'], 0.4).reaction).toBe(0.4);
    expect('reaction' in withField(warden, ['reaction'], undefined)).toBe(false);
    expect(withField(warden, ['body', 'height'], 1.5).body).toEqual({
      ...warden.body,
      height: 1.5,
    });
    expect('hearing' in withField(warden, ['hearing', 'threshold'], undefined)).toBe(false);
  });
});

describe('a field in which an agent differs', () => {
  const PATHS: FieldPath[] = [
    ['reaction'],
    ['sleepDistance'],
    ['body', 'radius'],
    ['body', 'height'],
    ['hearing', 'threshold'],
    ['gaits', 'run'],
  ];
  const changes = fc.array(
    fc.record({ path: fc.constantFrom(...PATHS), value: fc.constantFrom(0.1, 0.2, 0.3, 2) }),
    { maxLength: 8 },
  );

  it('is what was set last, whatever else was set', () => {
    fc.assert(
      fc.property(changes, (list) => {
        let overrides = undefined as ReturnType<typeof withOverride>;
        const wanted = new Map<string, { path: FieldPath; value: number }>();
        for (const { path, value } of list) {
          overrides = withOverride(overrides, warden, path, value);
          wanted.set(path.join('.'), { path, value });
        }
        const merged = withOverrides(warden, overrides);
        for (const { path, value } of wanted.values()) expect(valueAt(merged, path)).toBe(value);
        const differing = [...wanted].filter(
          ([, { path, value }]) => valueAt(warden, path) !== value,
        );
        expect(overridden(overrides).sort()).toEqual(differing.map(([name]) => name).sort());
      }),
    );
  });

  it('is gone without a trace when it goes back', () => {
    const other = withOverride(undefined, warden, ['body', 'radius'], 0.5);
    expect(withOverride(other, warden, ['body', 'radius'], undefined)).toBeUndefined();
    expect(withOverride(other, warden, ['body', 'radius'], 0.3)).toBeUndefined();
  });
});
