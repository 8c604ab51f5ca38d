import { describe, expect, it } from 'vitest';
import type { ProjectDocument, TierDocument } from '../model/documents.ts';
import { stepsOfPath } from '../model/names/path-text.ts';
import { inTier, numberAt } from '../model/tiers.ts';
import { cornerProject, watch } from '../testing/orchard.fixture.ts';
import { checkProject } from './check-project.ts';

function project(tiers: TierDocument[], tier?: string): ProjectDocument {
  const document = cornerProject({
    memory: { which: { type: 'text' } },
    machine: {
      initial: 'stand',
      states: [{ id: 'stand', entry: [{ do: 'remember', key: 'which', value: 'tier' }] }],
    },
  });
  document.archetypes.keeper.reaction = 0.4;
  document.archetypes.keeper.moves = { jab: { windUp: 0.5, active: 0.1, damage: 10 } };
  document.tiers = tiers;
  if (tier !== undefined) document.start.tier = tier;
  return document;
}

const TIERS: TierDocument[] = [
  { name: 'gentle', changes: [{ path: 'archetypes.keeper.moves.jab.damage', factor: 0.5 }] },
  { name: 'steady' },
  {
    name: 'fierce',
    changes: [
      { path: 'archetypes.keeper.reaction', value: 0.2 },
      { path: 'archetypes.keeper.moves.jab.damage', factor: 1.5 },
    ],
  },
];

const archetype = (document: ProjectDocument) =>
  checkProject(document).program!.archetypes.find(({ name }) => name === 'keeper')!;
const messages = (document: ProjectDocument) =>
  checkProject(document).findings.map(({ path, message }) => `${path}: ${message}`);

describe('a tier', () => {
  it('changes its numbers and no other, by value or factor; the first holds where none is chosen', () => {
    expect(archetype(project(TIERS)).moves[0].damage).toBe(5);
    expect(archetype(project(TIERS, 'steady')).moves[0].damage).toBe(10);
    const fierce = archetype(project(TIERS, 'fierce'));
    expect([fierce.moves[0].damage, fierce.reactionTicks, fierce.moves[0].windUp]).toEqual([
      15, 12, 30,
    ]);
    const document = project(TIERS, 'fierce');
    const before = JSON.stringify(document);
    inTier(document);
    expect(JSON.stringify(document)).toBe(before);
  });

  it('can be read by minds', () => {
    const { run, memory } = watch(project(TIERS, 'fierce'));
    run(2);
    expect(memory().which).toBe('fierce');
  });

  it('finds numbers by their path', () => {
    expect(stepsOfPath('minds.a.states[2].x')).toEqual(['minds', 'a', 'states', 2, 'x']);
    expect(stepsOfPath('minds..a')).toBeNull();
    expect(numberAt(project(TIERS), 'archetypes.keeper.reaction')).toBe(0.4);
    expect(numberAt(project(TIERS), 'archetypes.keeper.title')).toBeUndefined();
  });
});

describe('what is wrong with a tier', () => {
  it('is said at its place', () => {
    expect(
      messages(project([{ name: 'a', changes: [{ path: 'archetypes.keeper.nerve', value: 1 }] }])),
    ).toContainEqual(
      expect.stringMatching(/^tiers\[0\]\.changes\[0\]\.path: There is no number at/),
    );
    expect(
      messages(project([{ name: 'a', changes: [{ path: 'archetypes.keeper.reaction' }] }])),
    ).toContainEqual(expect.stringMatching(/a value or a factor/));
    expect(messages(project([{ name: 'a' }, { name: 'a' }]))).toContainEqual(
      expect.stringMatching(/^tiers\[1\]\.name: There is a tier “a” already/),
    );
    expect(messages(project(TIERS, 'mild'))).toContainEqual(expect.stringMatching(/^start\.tier/));
    const beyond = checkProject(
      project([{ name: 'a', changes: [{ path: 'archetypes.keeper.reaction', value: 60 }] }]),
    );
    expect(beyond.program).toBeNull();
    expect(beyond.findings[0]).toMatchObject({
      path: 'tiers[0].changes[0]',
      message: expect.stringMatching(/must be at most 5/) as string,
    });
  });

  it('harder in an easier one is a finding; what makes the player stronger is none', () => {
    const upside = [...TIERS].reverse();
    expect(messages(project(upside)).filter((text) => text.includes('easier one'))).toHaveLength(3);
    expect(messages(project(TIERS)).filter((text) => text.includes('easier one'))).toEqual([]);
  });
});
