import {
  ACTIONS,
  BUILTINS,
  FINDINGS,
  GLOSSARY,
  NODE_KINDS,
  OBSERVATIONS,
  SENSES,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { findInReference, REFERENCE, referenceOf } from './reference-entries.ts';

describe('the reference', () => {
  it('has one page for every node, action, built-in, sense and finding', () => {
    const wanted = [
      ...Object.keys(ACTIONS).map((name) => `do ${name}`),
      ...NODE_KINDS,
      ...BUILTINS.map(({ name }) => `builtin ${name}`),
      ...SENSES.map((sense) => `sense ${sense}`),
      ...Object.keys(FINDINGS).map((code) => `finding ${code}`),
      ...Object.keys(OBSERVATIONS).map((kind) => `observation ${kind}`),
      ...GLOSSARY.map(({ term }) => `term ${term}`),
    ];
    expect(REFERENCE.map(({ id }) => id).sort()).toEqual([...new Set(wanted)].sort());
  });

  it('says of each what it is, in whole words', () => {
    for (const { title, about, facts } of REFERENCE) {
      expect(title).not.toBe('');
      expect(about).toMatch(/^\S.*\.$/s);
      for (const [name, text] of facts.filter(([fact]) => fact !== 'also called'))
        expect(`${name} ${text}`).not.toMatch(/undefined|null|NaN/);
    }
  });

  it('shows an action as it is written, with what its parameters take', () => {
    const wait = referenceOf('do wait')!;
    expect(wait.facts).toContainEqual(['seconds', expect.stringContaining('0 to 3600 s')]);
    expect(wait.example).toMatchObject({ do: 'wait' });
  });
});

describe('the words of the trade', () => {
  it.each([
    ['utility', 'Choice'],
    ['utility score', 'Choice'],
    ['response curve', 'Curve'],
    ['inertia', 'Commitment'],
    ['hysteresis', 'Commitment'],
    ['blackboard', 'Memory'],
    ['transition', 'Transition'],
    ['condition', 'Guard'],
    ['on enter', 'State'],
    ['on update', 'Activity'],
    ['on exit', 'State'],
    ['decorator', 'Decorator'],
    ['fallback', 'Selector'],
    ['abort', 'Guard'],
    ['cooldown', 'Cooldown'],
    ['minimum duration', 'Minimum duration'],
    ['damage', 'Damage'],
    ['knockback', 'Knockback'],
    ['stun', 'Stagger'],
    ['hitbox', 'Move'],
    ['i-frames', 'Invulnerable'],
    ['startup frames', 'Wind-up'],
    ['field of view', 'Cone'],
    ['line of sight', 'Line of sight'],
    ['stimulus', 'Percept'],
    ['last known position', 'Last place'],
    ['spawner', 'Spawn place'],
    ['despawned', 'Absent'],
    ['difficulty level', 'Tier'],
    ['seed', 'Random stream'],
    ['separation', 'Steering'],
    ['nav grid', 'Walkable area'],
    ['formation slot', 'Slot'],
    ['frame', 'Tick, step'],
    ['time scale', 'Tick, step'],
    ['replay', 'Ledger'],
    ['conditional breakpoint', 'Breakpoint'],
    ['dot product', 'Orientation'],
  ])('“%s” leads to %s', (words, title) => {
    expect(
      findInReference(words)
        .slice(0, 4)
        .map((entry) => entry.title),
    ).toContain(title);
  });

  it('each lead to a page, and no two terms are called the same', () => {
    const terms = GLOSSARY.map(({ term }) => term);
    expect(new Set(terms).size).toBe(terms.length);
    for (const { term, aliases } of GLOSSARY)
      for (const alias of aliases)
        expect(findInReference(alias).map(({ id }) => id)).toContain(`term ${term}`);
  });

  it('name only built-ins there are', () => {
    const names = new Set(BUILTINS.map(({ name }) => name));
    const named = GLOSSARY.flatMap(({ builtins = [] }) => builtins);
    expect(named.filter((name) => !names.has(name))).toEqual([]);
  });
});
