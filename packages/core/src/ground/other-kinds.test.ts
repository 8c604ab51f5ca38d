import { describe, expect, it } from 'vitest';
import { CORRIDOR } from '../testing/corridor.fixture.ts';
import { compiled, nightWatch } from '../testing/demo.fixture.ts';
import { restoreSnapshot, takeSnapshot, worldHash } from '../world/handover/snapshot.ts';
import { swapProgram } from '../world/handover/swap.ts';
import { tick } from '../world/phases/tick.ts';
import type { Input } from '../world/program/program.ts';
import { createStatics } from '../world/program/statics.ts';
import { createWorld, setRecorder, type World } from '../world/world.ts';

/** Night Watch's warden, unchanged, in a corridor of 60 m with a gate in the middle; the gleaner waits at its far end. */
function corridor() {
  const document = nightWatch();
  const ground = document.grounds[document.start.ground];
  const { warden1 } = ground.agents;
  document.grounds[document.start.ground] = {
    title: 'Corridor',
    width: 60,
    height: 3,
    light: 1,
    walls: [],
    gates: { way: { at: [30, 0], size: [0.4, 3] } },
    routes: {
      [warden1.route!]: {
        points: [
          [6, 1.5],
          [20, 1.5],
        ],
        wait: 0.5,
      },
    },
    agents: {
      warden1: { ...warden1, at: [5, 1.5], heading: 0 },
      gleaner: { ...ground.agents.gleaner, at: [55, 1.5] },
    },
  };
  delete document.setups;
  delete document.players;
  const program = compiled(document);
  return { program, statics: createStatics(program, undefined, CORRIDOR) };
}

interface Watched {
  world: World;
  states: Set<string>;
  warden: World['agents'][number];
  run(ticks: number, input?: Partial<Input>): void;
}

function watched(): Watched {
  const { program, statics } = corridor();
  const world = createWorld(program, 7, statics);
  const states = new Set<string>();
  setRecorder(
    world,
    (entry) => entry.agent === 'warden1' && entry.kind === 'enter' && states.add(entry.state),
  );
  const warden = world.agents.find(({ name }) => name === 'warden1')!;
  return {
    world,
    states,
    warden,
    run(ticks, input) {
      for (let i = 0; i < ticks; i++)
        tick(
          world,
          i === 0 && input ? [{ agent: 'gleaner', x: 0, y: 0, gait: null, ...input }] : [],
        );
    },
  };
}

describe('a ground of another kind', () => {
  it('is patrolled, looked along and chased on by the same mind', () => {
    const { world, states, warden, run } = watched();
    const visited = new Set<number>();
    for (let i = 0; i < 1800; i++) {
      run(1);
      visited.add(Math.round(warden.x));
    }
    expect([visited.has(6), visited.has(20)]).toEqual([true, true]);
    expect([...states]).not.toContain('chase');
    const gleaner = world.agents.find(({ name }) => name === 'gleaner')!;
    gleaner.body.x = 24;
    run(600);
    expect([...states]).toEqual(expect.arrayContaining(['rounds', 'chase', 'collar']));
    expect(Math.abs(warden.x - gleaner.x)).toBeLessThan(1.3);
  });

  it('hides whom its gate stands before, until that opens', () => {
    const { world, states, warden, run } = watched();
    const gleaner = world.agents.find(({ name }) => name === 'gleaner')!;
    gleaner.body.x = 31;
    run(1500);
    expect([...states]).not.toContain('chase');
    run(1, { act: 'use' });
    expect(world.gates).toEqual([1]);
    run(1500, { place: [27, 1.5] });
    expect([...states]).toContain('chase');
    expect(warden.x).toBeGreaterThan(24);
  });

  it('goes through snapshots and edits as any', () => {
    const { world, run } = watched();
    run(300, { x: -1, gait: 'run' });
    const other = createWorld(world.statics.program, 7, world.statics);
    restoreSnapshot(other, structuredClone(takeSnapshot(world)));
    const edited = swapProgram(other, corridor().program, 2, 7);
    expect(edited.statics.ownKind).toBe(CORRIDOR);
    for (let i = 0; i < 300; i++) tick(edited);
    run(300);
    expect(worldHash(edited)).toBe(worldHash(world));
  });
});
