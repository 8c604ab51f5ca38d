import { describe, expect, it } from 'vitest';
import { cornerProject, programOf } from '../testing/orchard.fixture.ts';
import { tick } from '../world/phases/tick.ts';
import { createWorld } from '../world/world.ts';
import { worldHash } from '../world/handover/snapshot.ts';
import { createRun, advance, inputsOf } from '../ledger/run.ts';
import { checkProject } from '../findings/check-project.ts';
import type { SetupDocument } from './documents.ts';
import { readProject } from './file/read-project.ts';
import { playerOf, withSetup } from './set-ups.ts';

function document() {
  const project = cornerProject({
    machine: { initial: 'stand', states: [{ id: 'stand' }] },
    ground: { things: { basket: { at: [8.6, 5] } } },
  });
  project.setups = {
    close: {
      title: 'Close',
      play: 'keeper',
      seed: 9,
      agents: { gleaner: { at: [4, 5], heading: 90 } },
    },
  };
  return project;
}

describe('a set-up', () => {
  it('moves who it names, and leaves the rest as it is', () => {
    const project = document();
    const close = withSetup(project, 'close');
    expect(close.start).toEqual({ ground: 'corner', play: 'keeper', seed: 9 });
    expect(close.grounds.corner.agents.gleaner).toEqual({
      archetype: 'gleaner',
      at: [4, 5],
      heading: 90,
    });
    expect(close.grounds.corner.agents.keeper).toEqual(project.grounds.corner.agents.keeper);
    expect(withSetup(project, 'nobody')).toBe(project);
  });
});

describe('a set-up that can’t begin as it says', () => {
  const found = (change: (setup: SetupDocument) => void) => {
    const project = document();
    change(project.setups!.close);
    return checkProject(project).findings.map(({ severity, path }) => `${severity} ${path}`);
  };

  it.each([
    ['plays nobody', (setup: SetupDocument) => (setup.play = 'keper'), 'play'],
    ['has no such player', (setup: SetupDocument) => (setup.player = 'rush'), 'player'],
    [
      'moves no agent',
      (setup: SetupDocument) => (setup.agents!.gleanr = { heading: 0 }),
      'agents.gleanr',
    ],
    [
      'puts one off the ground',
      (setup: SetupDocument) => (setup.agents!.gleaner.at = [30, 5]),
      'agents.gleaner.at',
    ],
    [
      'puts one upon another',
      (setup: SetupDocument) => (setup.agents!.gleaner.at = [2.2, 5]),
      'agents.keeper.at',
    ],
  ])('%s: a finding says so, and all else runs', (_, change, path) => {
    expect(found(change)).toEqual([`warning setups.close.${path}`]);
  });

  it('is no finding where all is well', () => {
    expect(found(() => {})).toEqual([]);
  });
});

describe('a recorded player', () => {
  it('saved with the project gives the very run it was recorded in', () => {
    const project = document();
    const run = createRun(programOf(project), 1, 5);
    const at = (now: number) =>
      now === 3
        ? [{ agent: 'gleaner', x: 0, y: 0, gait: null, act: 'pickUp' as const }]
        : now === 20
          ? [{ agent: 'gleaner', x: -1, y: 0.5, gait: 'run' }]
          : now === 60
            ? [{ agent: 'gleaner', x: 0, y: 0, gait: null, place: [15, 8] as [number, number] }]
            : [];
    for (let i = 1; i <= 120; i++) advance(run, at(i));
    const player = playerOf('Before', run.seed, inputsOf(run))!;
    const saved = { ...project, players: { before: player } };
    saved.start = { ...project.start, player: 'before', seed: player.seed };
    expect(readProject(saved).ok).toBe(true);
    const again = createWorld(programOf(saved));
    for (let i = 1; i <= 120; i++) tick(again);
    expect(worldHash(again)).toBe(worldHash(run.world));
    expect(again.things[0].carrier).toBe(0);
  });

  it('of a run without input is none', () => {
    expect(playerOf('Nothing', 1, [])).toBeNull();
  });
});
