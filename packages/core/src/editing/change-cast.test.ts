import { describe, expect, it } from 'vitest';
import { cornerProject } from '../testing/orchard.fixture.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProject } from '../model/file/read-project.ts';
import { applyCommand } from './apply-command.ts';
import { CommandError, type DocumentCommand } from './commands/commands.ts';

function yard(): ProjectDocument {
  const document = cornerProject({ machine: { initial: 'stand', states: [{ id: 'stand' }] } });
  document.archetypes.keeper.squad = 'west';
  document.squads = { west: { title: 'West' } };
  document.factions = {
    keepers: { title: 'Keepers', toward: { gleaners: 'neutral' } },
    gleaners: { title: 'Gleaners' },
  };
  document.players = { rush: { title: 'Rush', inputs: [] } };
  document.setups = { late: { title: 'Late', player: 'rush' } };
  document.start.player = 'rush';
  Object.assign(document.grounds.corner.agents.keeper, {
    squad: 'west',
    overrides: { faction: 'keepers', reaction: 0.5 },
  });
  return document;
}

function apply(command: DocumentCommand, document = yard()): ProjectDocument {
  const before = JSON.stringify(document);
  const after = applyCommand(document, command);
  expect(JSON.stringify(document), 'the document before is left alone').toBe(before);
  expect(readProject(after), 'what comes out can be read').toMatchObject({ ok: true });
  return after;
}

const refusal = (command: DocumentCommand) => {
  try {
    applyCommand(yard(), command);
  } catch (error) {
    if (error instanceof CommandError) return error.message;
    throw error;
  }
  return 'done';
};

describe('an entry of the cast', () => {
  it('is added and changed', () => {
    const value = { title: 'East', reach: 10 };
    const after = apply({ command: 'setInCast', part: 'squads', name: 'east', value });
    expect(after.squads).toEqual({ west: { title: 'West' }, east: value });
  });

  it('takes the references to it along when it goes, and an empty record with it', () => {
    const after = apply({ command: 'setInCast', part: 'squads', name: 'west', value: null });
    expect(after.squads).toBeUndefined();
    expect(after.archetypes.keeper.squad).toBeUndefined();
    expect(after.grounds.corner.agents.keeper.squad).toBeUndefined();
    const without = apply({ command: 'setInCast', part: 'players', name: 'rush', value: null });
    expect([without.start.player, without.setups!.late.player]).toEqual([undefined, undefined]);
  });

  it.each([
    ['archetypes', 'keeper', /Keeper|keeper.*is made from it/],
    ['factions', 'keepers', /Keeper is on that side/],
    ['squads', 'north', /no squad “north”/],
  ] as const)('of the %s stays while it is needed, and why is said', (part, name, message) => {
    expect(refusal({ command: 'setInCast', part, name, value: null })).toMatch(message);
  });

  it('of an archetype no agent is made from can go', () => {
    const document = yard();
    document.archetypes.extra = document.archetypes.keeper;
    const after = apply(
      { command: 'setInCast', part: 'archetypes', name: 'extra', value: null },
      document,
    );
    expect(Object.keys(after.archetypes)).toEqual(['gleaner', 'keeper']);
  });
});

describe('a new name', () => {
  it('of an archetype reaches waves, breakpoints and tiers too', () => {
    const document = yard();
    document.grounds.corner.waves = { dusk: { archetype: 'keeper', count: 2 } };
    document.breakpoints = { seen: { on: 'percept', archetype: 'keeper' } };
    document.tiers = [
      {
        name: 'hard',
        changes: [
          { path: 'archetypes.keeper.reaction', factor: 0.5 },
          { path: 'archetypes.keepers.reaction', factor: 2 },
        ],
      },
    ];
    const renamed = {
      command: 'rename',
      part: 'archetypes',
      name: 'keeper',
      to: 'guard',
    } as const;
    const after = apply(renamed, document);
    expect(after.grounds.corner.waves!.dusk.archetype).toBe('guard');
    expect(after.breakpoints!.seen.archetype).toBe('guard');
    expect(after.tiers![0].changes!.map(({ path }) => path)).toEqual([
      'archetypes.guard.reaction',
      'archetypes.keepers.reaction',
    ]);
  });

  it('is used wherever the old one was', () => {
    const squads = apply({ command: 'rename', part: 'squads', name: 'west', to: 'dusk' });
    expect(squads.archetypes.keeper.squad).toBe('dusk');
    expect(squads.grounds.corner.agents.keeper.squad).toBe('dusk');
    const kinds = apply({
      command: 'rename',
      part: 'archetypes',
      name: 'keeper',
      to: 'guard',
    });
    expect(kinds.grounds.corner.agents.keeper.archetype).toBe('guard');
    const sides = apply({
      command: 'rename',
      part: 'factions',
      name: 'keepers',
      to: 'guards',
    });
    expect(sides.archetypes.keeper.faction).toBe('guards');
    expect(sides.grounds.corner.agents.keeper.overrides!.faction).toBe('guards');
    const others = apply({ command: 'rename', part: 'factions', name: 'gleaners', to: 'us' });
    expect(others.factions!.keepers.toward).toEqual({ us: 'neutral' });
    const players = apply({ command: 'rename', part: 'players', name: 'rush', to: 'dash' });
    expect([players.start.player, players.setups!.late.player]).toEqual(['dash', 'dash']);
  });

  it.each([
    ['East', /not a usable name.*lower-case/],
    ['west', /already/],
  ])('“%s” that can’t be is refused', (to, message) => {
    expect(refusal({ command: 'rename', part: 'squads', name: 'west', to })).toMatch(message);
  });
});

describe('a stance', () => {
  const set = (of: string, toward: string, stance: 'hostile' | 'neutral' | 'friendly') =>
    apply({ command: 'setStance', of, toward, stance }).factions;

  it('is kept where it differs from what holds anyway', () => {
    expect(set('gleaners', 'keepers', 'friendly')!.gleaners.toward).toEqual({
      keepers: 'friendly',
    });
    expect(set('keepers', 'gleaners', 'hostile')!.keepers).toEqual({ title: 'Keepers' });
    expect(set('keepers', 'keepers', 'friendly')!.keepers.toward).toEqual({ gleaners: 'neutral' });
  });

  it('declares a faction that only archetypes named', () => {
    const document = yard();
    delete document.factions;
    const after = apply(
      { command: 'setStance', of: 'keepers', toward: 'gleaners', stance: 'neutral' },
      document,
    );
    expect(after.factions).toEqual({ keepers: { toward: { gleaners: 'neutral' } } });
  });
});
