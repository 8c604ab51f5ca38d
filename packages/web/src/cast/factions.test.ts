import { compileProject, withOverrides, type ProjectDocument } from '@crooked-lantern/core';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { factionNames, factionTint, factionTitle, hostileFaction, stanceOf } from './factions.ts';

const demo = () =>
  JSON.parse(
    readFileSync(new URL('../../../../demo/night-watch.lantern.json', import.meta.url), 'utf8'),
  ) as ProjectDocument;

describe('the factions the page shows', () => {
  it('are those the run has, in its order and with its stances', () => {
    const document = demo();
    document.archetypes.hound.faction = 'hounds';
    document.grounds.orchard.agents.warden1.overrides = { faction: 'turncoats' };
    document.factions!.idle = {};
    const { program } = compileProject(document);
    const names = factionNames(document);
    expect(names).toEqual(program!.factions);
    expect(names).toEqual(['geese', 'gleaners', 'hounds', 'idle', 'turncoats', 'wardens']);
    names.forEach((of, i) =>
      names.forEach((toward, j) => {
        const stance = ['hostile', 'neutral', 'friendly'].indexOf(
          stanceOf(document.factions, of, toward),
        );
        expect(program!.stances[i * names.length + j], `${of} toward ${toward}`).toBe(stance);
      }),
    );
  });

  it('have a title, and a tint that goes round when there are many', () => {
    const document = demo();
    expect(factionTitle(document, 'geese')).toBe('Geese');
    expect(factionTitle(document, 'strangers')).toBe('strangers');
    const tints = ['a', 'b'];
    expect(factionNames(document).map((name) => factionTint(document, name, tints))).toEqual([
      'a',
      'b',
      'a',
    ]);
  });
});

describe('where an agent differs', () => {
  it('leaves the archetype as it is', () => {
    const { warden } = demo().archetypes;
    const before = JSON.stringify(warden);
    const other = withOverrides(warden, { sight: { fade: 1 }, gaits: { creep: 1 } });
    expect(other.sight).toEqual({ ...warden.sight, fade: 1 });
    expect(Object.keys(other.gaits).sort()).toEqual(['creep', 'run', 'walk']);
    expect(JSON.stringify(warden)).toBe(before);
  });

  it('have one for newcomers, which is hostile to an agent that is played', () => {
    const document = demo();
    const played = document.archetypes.gleaner.faction;
    const chosen = hostileFaction(document);
    expect(stanceOf(document.factions, chosen, played)).toBe('hostile');
    // Where all that there are are friendly, it is a new one, which is hostile by itself.
    for (const name of factionNames(document))
      document.factions![name] = { toward: { [played]: 'friendly' } };
    const fresh = hostileFaction(document);
    expect(factionNames(document)).not.toContain(fresh);
    expect(stanceOf(document.factions, fresh, played)).toBe('hostile');
  });
});
