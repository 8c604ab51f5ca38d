import {
  ACTIONS,
  BUILTINS,
  FINDINGS,
  NODE_KINDS,
  RUN_FINDINGS,
  SENSES,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { REFERENCE, referenceOf } from './reference-entries.ts';

describe('the reference', () => {
  it('has one page for every node, action, built-in, sense and finding', () => {
    const wanted = [
      ...Object.keys(ACTIONS).map((name) => `do ${name}`),
      ...NODE_KINDS,
      ...BUILTINS.map(({ name }) => `builtin ${name}`),
      ...SENSES.map((sense) => `sense ${sense}`),
      ...Object.keys(FINDINGS).map((code) => `finding ${code}`),
      ...Object.keys(RUN_FINDINGS).map((kind) => `run finding ${kind}`),
    ];
    expect(REFERENCE.map(({ id }) => id).sort()).toEqual([...new Set(wanted)].sort());
  });

  it('says of each what it is, in whole words', () => {
    for (const { title, about, facts } of REFERENCE) {
      expect(title).not.toBe('');
      expect(about).toMatch(/^\S.*\.$/s);
      for (const [name, text] of facts) expect(`${name} ${text}`).not.toMatch(/undefined|null|NaN/);
    }
  });

  it('shows an action as it is written, with what its parameters take', () => {
    const wait = referenceOf('do wait')!;
    expect(wait.facts).toContainEqual(['seconds', expect.stringContaining('0 to 3600 s')]);
    expect(wait.example).toMatchObject({ do: 'wait' });
  });
});
