import type { ProjectDocument } from '@crooked-lantern/core';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { targetsOf } from './targets.ts';

const demo = (name: string) =>
  JSON.parse(
    readFileSync(
      path.resolve(import.meta.dirname, `../../../../demo/${name}.lantern.json`),
      'utf8',
    ),
  ) as ProjectDocument;

describe('what can be asked', () => {
  const document = demo('night-watch');
  const titles = targetsOf(document, 'warden1').map(({ title }) => title);
  const noticing = titles.filter((title) => title.startsWith('how it notices'));

  it('is of everyone, also of those it can’t notice: the played one first, friends last', () => {
    const { agents } = document.grounds[document.start.ground];
    expect(noticing).toHaveLength(Object.keys(agents).length - 1);
    expect(noticing[0]).toMatch(/Gleaner/);
    expect(noticing.at(-1)).toMatch(/Warden/);
  });

  it('is of an agent’s further minds too, which it names', () => {
    const two = structuredClone(document);
    two.archetypes.warden.minds = ['goose'];
    const { id, title } = targetsOf(two, 'warden1').find(({ id: each }) =>
      each.startsWith('goose/notState:'),
    )!;
    expect(title).toMatch(/\(Goose\)$/);
    expect(targetsOf(document, 'warden1').map((each) => each.id)).not.toContain(id);
  });

  it('is why the run ended, of every agent with a mind and of others', () => {
    expect(titles).toContain('why the run ended');
    expect(targetsOf(document, 'gleaner').map(({ title }) => title)).toContain('why the run ended');
  });
});
