import { describe, expect, it } from 'vitest';
import { BODY_STRIDE, type Input } from '@crooked-lantern/core';
import { newProject } from '../home/new-project.ts';
import type { Comparison, Frame } from '../engine/protocol.ts';
import { started as begun, type Rig } from './testing/rig.fixture.ts';

const night = () => newProject('Night');
const PLAYED = night().start.play!;
const walk = (x: number, y = 0): Input => ({ agent: PLAYED, x, y, gait: null });
const names = Object.keys(night().grounds[night().start.ground].agents).sort();

function place(frame: Frame): Float32Array {
  const at = names.indexOf(PLAYED) * BODY_STRIDE;
  return frame.bodies.slice(at, at + 2);
}

/** The branches as they were told last. */
function branchesOf({ frames }: Rig) {
  return frames.findLast(({ branches }) => branches !== null)!.branches!;
}

/** A run of 60 ticks that took another way from tick 20 on, by a key. */
async function parted(): Promise<Rig> {
  const rig = await begun(night());
  rig.engine.nudge(60);
  rig.frame();
  rig.engine.seek(20);
  rig.engine.setInput(walk(1));
  rig.engine.nudge(30);
  rig.frame();
  return rig;
}

describe('going on from the past', () => {
  it('another way keeps the old one, from where it parted, and leads back to it', async () => {
    const rig = await parted();
    const { engine, frame } = rig;
    const [now, kept] = branchesOf(rig);
    expect(now).toMatchObject({ id: 2, parted: { from: 1, tick: 20, by: 'input' } });
    expect(kept).toMatchObject({ id: 1, parted: null, head: 60 });
    const [x] = place(frame());
    engine.goToBranch(1);
    expect([frame().tick, frame().head]).toEqual([50, 60]);
    expect(place(frame())[0]).toBeLessThan(x);
    engine.goToBranch(2);
    expect([frame().tick, frame().head]).toEqual([50, 50]);
    expect(place(frame())[0]).toBe(x);
    expect(branchesOf(rig).map(({ id }) => id)).toEqual([2, 1]);
  });

  it('the same way goes through what is recorded, and makes no branch', async () => {
    const rig = await begun(night());
    const { engine, frame, pass } = rig;
    engine.nudge(60);
    const { hash } = frame();
    engine.seek(20);
    engine.play();
    expect(pass(200).head).toBe(60);
    engine.pause();
    const { tick } = pass(100);
    expect(tick).toBeLessThan(60);
    engine.nudge(60 - tick);
    expect([frame().tick, frame().hash]).toEqual([60, hash]);
    expect(branchesOf(rig)).toHaveLength(1);
    engine.nudge(1);
    expect([frame().head, branchesOf(rig).length]).toEqual([61, 1]);
  });

  it('under another edit is another way', async () => {
    const rig = await begun(night());
    const { engine, frame } = rig;
    engine.nudge(60);
    await engine.submit({ ...night(), ticksPerSecond: 60, title: 'Later' }, 2);
    engine.seek(20);
    engine.nudge(10);
    engine.play();
    rig.pass(100);
    expect(frame().edit).toBe(2);
    expect(branchesOf(rig)[0].parted).toEqual({ from: 1, tick: 30, by: 'edit' });
  });

  it('a restart keeps the run before it; names stay, and what is let go is gone', async () => {
    const rig = await begun(night());
    const { engine, frame } = rig;
    engine.nudge(30);
    frame();
    engine.nameBranch(1, 'quiet');
    engine.restart(5);
    frame();
    expect(branchesOf(rig)).toMatchObject([
      { id: 2, seed: 5, parted: { from: 1, tick: 0, by: 'seed' } },
      { id: 1, name: 'quiet', head: 30 },
    ]);
    engine.letGoOfBranch(1);
    frame();
    expect(branchesOf(rig).map(({ id }) => id)).toEqual([2]);
  });
});

describe('two runs compared', () => {
  it('part where the keys did, with what was given, both answers and figures', async () => {
    const rig = await parted();
    const { engine, drained } = rig;
    const shares: number[] = [];
    const comparison = (await drained(
      engine.compare(1, (share) => shares.push(share)),
    )) as Comparison;
    expect(comparison.parting).toMatchObject({ tick: 21, agent: PLAYED });
    expect(comparison.given).toMatchObject({ inputs: 21, edits: null, seeds: null });
    expect(comparison.until).toBe(50);
    const [here, there] = comparison.figures.map((figures) => figures.get(PLAYED)!.walked);
    expect(here).toBeGreaterThan(there);
    expect(comparison.lanes.byAgent.size).toBeGreaterThan(0);
    expect(comparison.head).toBe(60);
  });

  it('say in words what an edit changed between them', async () => {
    const rig = await begun(night());
    const { engine, drained } = rig;
    engine.nudge(30);
    const edited = night();
    edited.archetypes[Object.keys(edited.archetypes)[0]].title = 'Other';
    await engine.submit(edited, 2);
    engine.seek(10);
    engine.play();
    rig.pass(300);
    const [, kept] = branchesOf(rig);
    const comparison = (await drained(engine.compare(kept.id, () => {}))) as Comparison;
    expect(comparison.given.edits).toEqual([2, 1]);
    expect(comparison.changes).toMatchObject([{ how: 'changed', from: 'Other' }]);
  });

  it('can be run beside: the same keys with another seed', async () => {
    const rig = await parted();
    const { engine, drained, frame } = rig;
    const { hash } = frame();
    const made = await drained(engine.runBeside({ seed: 99 }, () => {}));
    frame();
    expect(branchesOf(rig).find(({ id }) => 'id' in made && id === made.id)).toMatchObject({
      seed: 99,
      head: 50,
    });
    expect(frame().hash).toBe(hash);
    // Under the same seed and edit it comes to the same end.
    const same = (await drained(engine.runBeside({ edit: true }, () => {}))) as { id: number };
    const comparison = (await drained(engine.compare(same.id, () => {}))) as Comparison;
    expect(comparison.parting).toBeNull();
  });

  it('with a branch that is gone is refused, and can be ended', async () => {
    const rig = await parted();
    const { engine, drained } = rig;
    expect(await drained(engine.compare(77, () => {}))).toHaveProperty('trouble');
    const work = engine.runBeside({ seed: 3 }, () => engine.stopLooking());
    expect(await drained(work)).toEqual({ trouble: 'The search was ended.' });
  });
});
