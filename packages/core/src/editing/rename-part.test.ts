import { describe, expect, it } from 'vitest';
import { checkProject } from '../findings/check-project.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProject } from '../model/file/read-project.ts';
import type { NamedPart } from '../model/names/named-parts.ts';
import { mapNames } from '../model/references.ts';
import { demoDocument } from '../testing/demo.fixture.ts';
import { cornerProject } from '../testing/orchard.fixture.ts';
import { applyCommand } from './apply-command.ts';
import { CommandError, type Renaming } from './commands/commands.ts';

const rename = (document: ProjectDocument, renaming: Renaming) =>
  applyCommand(document, { command: 'rename', ...renaming });

function refusal(document: ProjectDocument, renaming: Renaming): string {
  try {
    rename(document, renaming);
  } catch (error) {
    if (error instanceof CommandError) return error.message;
    throw error;
  }
  return 'done';
}

/** A corner with a part of every kind that can be named in minds. */
function yard(): ProjectDocument {
  const document = cornerProject({
    memory: { seenAt: { type: 'point' } },
    machine: {
      initial: 'stand',
      states: [
        {
          id: 'stand',
          transitions: [
            { to: 'stand', when: "isOpen(yardGate) && canReach('poke')" },
            { to: 'stand', when: "self.role == 'hold' && moveOf(attention.of) == 'poke'" },
            { to: 'stand', when: "inBand(near, 'close') > 0.5", on: 'mode.dusk' },
          ],
        },
      ],
    },
    ground: {
      gates: { yardGate: { at: [5, 5], size: [1, 0.2] } },
      plates: { slab: { at: [3, 3], size: [1, 1], opens: 'yardGate' } },
      schedule: { modes: [{ mode: 'dusk', for: 5 }] },
      scores: { saved: {} },
    },
  });
  const { archetypes } = document;
  const move = { kind: 'strike', windUp: 0.2, active: 0.1, recovery: 0.2, reach: 1 } as const;
  archetypes.keeper.moves = { poke: { ...move } as never };
  archetypes.gleaner.moves = { poke: { ...move } as never };
  document.squads = { west: { title: 'West', roles: [{ role: 'hold', score: '1' }] } };
  document.bands = {
    near: { input: 'distance(self.post)', bands: [{ name: 'close', from: 0, to: 3 }] },
  };
  document.breakpoints = { poked: { on: 'hit', of: 'poke:hit', agent: 'keeper' } };
  document.tiers = [
    { name: 'hard', changes: [{ path: 'archetypes.keeper.moves.poke.reach', factor: 2 }] },
  ];
  document.setups = {
    late: { title: 'Late', play: 'gleaner', agents: { keeper: { heading: 90 } } },
  };
  return document;
}

const whens = (document: ProjectDocument) =>
  document.minds.keeper.machine!.states[0].transitions!.map(({ when }) => when);

describe('another name', () => {
  it('of what stands on the ground reaches other parts of the ground and expressions', () => {
    const after = rename(yard(), { part: 'gates', name: 'yardGate', to: 'wicket' });
    expect(after.grounds.corner.plates!.slab.opens).toBe('wicket');
    expect(Object.keys(after.grounds.corner.gates!)).toEqual(['wicket']);
    expect(whens(after)[0]).toBe("isOpen(wicket) && canReach('poke')");
  });

  it('of a move reaches all archetypes that have it, texts, breakpoints and tiers', () => {
    const after = rename(yard(), { part: 'moves', name: 'poke', to: 'jab' });
    expect([after.archetypes.keeper.moves, after.archetypes.gleaner.moves]).toEqual([
      { jab: expect.anything() },
      { jab: expect.anything() },
    ]);
    expect(whens(after).slice(0, 2)).toEqual([
      "isOpen(yardGate) && canReach('jab')",
      "self.role == 'hold' && moveOf(attention.of) == 'jab'",
    ]);
    expect(after.breakpoints!.poked.of).toBe('jab:hit');
    expect(after.tiers![0].changes![0].path).toBe('archetypes.keeper.moves.jab.reach');
  });

  it('of a placed agent reaches the start, set-ups and breakpoints', () => {
    const after = rename(yard(), { part: 'agents', name: 'keeper', to: 'watcher' });
    expect(after.setups!.late.agents).toEqual({ watcher: { heading: 90 } });
    expect(after.breakpoints!.poked.agent).toBe('watcher');
    expect(after.archetypes, 'an archetype of that name is another thing').toHaveProperty('keeper');
    expect(rename(yard(), { part: 'agents', name: 'gleaner', to: 'thief' })).toMatchObject({
      start: { play: 'thief' },
      setups: { late: { play: 'thief' } },
    });
  });

  it('of a mode reaches events, of a role what minds compare with it, of a band its own set only', () => {
    const dawn = rename(yard(), { part: 'modes', name: 'dusk', to: 'dawn' });
    expect(dawn.grounds.corner.schedule!.modes[0].mode).toBe('dawn');
    expect(dawn.minds.keeper.machine!.states[0].transitions![2].on).toBe('mode.dawn');
    expect(whens(rename(yard(), { part: 'roles', name: 'hold', to: 'stay' }))[1]).toMatch(/'stay'/);
    const two = yard();
    two.bands!.far = structuredClone(two.bands!.near);
    const after = rename(two, { part: 'bands', of: 'near', name: 'close', to: 'at' });
    expect([after.bands!.near.bands[0].name, after.bands!.far.bands[0].name]).toEqual([
      'at',
      'close',
    ]);
    expect(whens(after)[2]).toBe("inBand(near, 'at') > 0.5");
    expect(whens(rename(two, { part: 'bandSets', name: 'near', to: 'here' }))[2]).toBe(
      "inBand(here, 'close') > 0.5",
    );
  });

  it('leaves alone what only looks like it: keys, parameters and texts of other meaning', () => {
    const document = yard();
    document.minds.keeper.memory!.yardGate = { type: 'point' };
    const kept = rename(document, { part: 'gates', name: 'yardGate', to: 'wicket' });
    expect(whens(kept)[0], 'a key hides the gate').toMatch(/yardGate/);
    expect(whens(rename(yard(), { part: 'scores', name: 'saved', to: 'kept' }))).toEqual(
      whens(yard()),
    );
  });

  it.each<[string, Renaming, RegExp]>([
    ['no name', { part: 'gates', name: 'yardGate', to: 'Wicket' }, /not a usable name/],
    ['of another part', { part: 'moves', name: 'swing', to: 'jab' }, /no move “swing”/],
    ['a plate', { part: 'plates', name: 'slab', to: 'slab' }, /already/],
    ['a route', { part: 'gates', name: 'yardGate', to: 'walk' }, /is a route.*tell the two apart/],
    ['a key there', { part: 'gates', name: 'yardGate', to: 'seenAt' }, /something else.*“seenAt”/],
    ['a faction', { part: 'archetypes', name: 'keeper', to: 'gleaner' }, /already/],
  ])('%s is refused', (_, renaming, message) => {
    const document = yard();
    document.grounds.corner.routes.walk = {
      points: [
        [1, 1],
        [2, 2],
      ],
    };
    expect(refusal(document, renaming)).toMatch(message);
  });

  it('that a list has already is refused, but for a mode that comes twice', () => {
    const document = yard();
    document.tiers!.push({ name: 'easy' });
    expect(refusal(document, { part: 'tiers', name: 'hard', to: 'easy' })).toMatch(/already/);
    document.grounds.corner.schedule!.modes.push({ mode: 'dusk', for: 9 });
    const after = rename(document, { part: 'modes', name: 'dusk', to: 'dawn' });
    expect(after.grounds.corner.schedule!.modes.map(({ mode }) => mode)).toEqual(['dawn', 'dawn']);
  });
});

/** Each name that parts of a kind have, with the set of each band. */
function allNames(document: ProjectDocument): Omit<Renaming, 'to'>[] {
  const found = new Map<string, Omit<Renaming, 'to'>>();
  mapNames(document, {
    name: (name, parts, path) => {
      const [part] = parts as [NamedPart];
      const of = part === 'bands' && path[0] === 'bands' ? { of: String(path[1]) } : {};
      if (parts.length === 1 && (part !== 'bands' || of.of))
        found.set(`${part} ${of.of} ${name}`, { part, name, ...of });
      return name;
    },
    expression: (source) => source,
    event: (event) => event,
  });
  return [...found.values()];
}

describe('any part of the demos', () => {
  const codes = (document: ProjectDocument) =>
    checkProject(document)
      .findings.map(({ code, severity }) => `${severity} ${code}`)
      .sort();

  it.each(['night-watch', 'windfall', 'keepers-duel', 'harvest-night', 'hive-day', 'bell-hours'])(
    'of %s can be called otherwise: nothing is lost, and the way back leads to the same file',
    (name) => {
      const document = demoDocument(name);
      const before = codes(document);
      const text = JSON.stringify(document);
      for (const part of allNames(document)) {
        const to = 'renamedHere';
        const after = rename(document, { ...part, to });
        expect([part, codes(after)]).toEqual([part, before]);
        expect(readProject(after).ok).toBe(true);
        const back = rename(after, { ...part, name: to, to: part.name });
        expect([part, JSON.stringify(back)]).toEqual([part, text]);
      }
    },
  );
});
