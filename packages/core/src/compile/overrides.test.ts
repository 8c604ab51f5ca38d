import { describe, expect, it } from 'vitest';
import { checkProject } from '../findings/check-project.ts';
import { cornerProject, KEEN_SIGHT, watch } from '../testing/orchard.fixture.ts';
import type { OverridesDocument, ProjectDocument } from '../model/documents.ts';

/** Two keepers of one archetype; the second differs from it. */
function pair(
  overrides: OverridesDocument,
  change: (document: ProjectDocument) => void = () => {},
): ProjectDocument {
  const document = cornerProject({
    machine: { initial: 'stand', states: [{ id: 'stand' }] },
    sight: KEEN_SIGHT,
  });
  const { agents } = document.grounds.corner;
  agents.other = { archetype: 'keeper', at: [2, 7], overrides };
  change(document);
  return document;
}

const paths = (document: ProjectDocument) =>
  checkProject(document).findings.map(({ severity, path }) => `${severity} ${path}`);

describe('an agent that differs from its archetype', () => {
  it('has what it says and keeps the rest', () => {
    const { program } = checkProject(
      pair({ reaction: 0.5, body: { radius: 0.4 }, sight: { fade: 0.1 }, gaits: { sneak: 0.5 } }),
    );
    const of = (name: string) => {
      const agent = program!.agents.find((each) => each.name === name)!;
      return program!.archetypes[agent.archetype];
    };
    const [plain, other] = [of('keeper'), of('other')];
    expect(other).toMatchObject({
      reactionTicks: 30,
      radius: 0.4,
      acceleration: plain.acceleration,
    });
    expect(other.sight).toEqual({ ...plain.sight, fade: 0.1 });
    const sneak = program!.gaits.indexOf('sneak');
    expect([plain.speeds[sneak], other.speeds[sneak]]).toEqual([NaN, 0.5]);
    expect(other.stack, 'one mind serves both').toBe(plain.stack);
  });

  it('sees with its own eyes while the others see with theirs', () => {
    const far = { cones: [{ range: 4, halfAngle: 45, gain: 2 }] };
    const { world, run } = watch(pair({ sight: far }));
    run(30);
    const awareness = (name: string) =>
      world.agents.find((agent) => agent.name === name)!.known.awarenessShown;
    expect(awareness('keeper')).toBeGreaterThan(0);
    expect(awareness('other')).toBe(0);
  });

  it('can be on another side', () => {
    const { world } = watch(pair({ faction: 'gleaners' }));
    const [gleaner, keeper, other] = ['gleaner', 'keeper', 'other'].map((name) =>
      world.agents.find((agent) => agent.name === name)!,
    );
    expect([keeper.self.isHostile(gleaner.index), other.self.isHostile(gleaner.index)]).toEqual([
      true,
      false,
    ]);
    expect(keeper.self.isHostile(other.index)).toBe(true);
  });
});

describe('findings', () => {
  it('name the override where it is at fault', () => {
    const at = 'grounds.corner.agents.other.overrides';
    expect(paths(pair({ gait: 'fly' }))).toContain(`error ${at}.gait`);
    expect(paths(pair({ mind: 'nobody' }))).toContain(`error ${at}.mind`);
    expect(paths(pair({ sight: { certain: 0.1 } }))).toContain(`error ${at}.sight.curious`);
    expect(paths(pair({ hearing: {} }))).toContain(`error ${at}.hearing`);
  });

  it('name the archetype alone where that is at fault', () => {
    const faulty = pair({ reaction: 1 }, ({ archetypes }) => {
      archetypes.keeper.gait = 'fly';
      archetypes.keeper.mind = 'nobody';
    });
    expect(
      paths(faulty)
        .filter((path) => path.startsWith('error'))
        .sort(),
    ).toEqual(['error archetypes.keeper.gait', 'error archetypes.keeper.mind']);
  });

  it('refuse a mind that an agent would have twice', () => {
    const twice = pair({}, ({ archetypes: { keeper } }) => {
      keeper.minds = [keeper.mind!];
    });
    expect(paths(twice)).toEqual(['error archetypes.keeper.minds[0]']);
    expect(paths(pair({ minds: ['keeper'] }))).toEqual([
      'error grounds.corner.agents.other.overrides.minds[0]',
    ]);
  });

  it('know a mind that only an override brings', () => {
    const aimed = (mind: string) =>
      pair({ minds: [mind] }, ({ minds }) => {
        minds.aim = { title: 'Aim', activity: { do: 'wait', seconds: 1 } };
      });
    expect(paths(aimed('aim'))).not.toContain('warning minds.aim');
    expect(paths(aimed('keeper'))).toContain('warning minds.aim');
  });
});
