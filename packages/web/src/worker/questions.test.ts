import type { BreakpointDocument, ProjectDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import { started } from './testing/rig.fixture.ts';

const COME = { kind: 'state', state: 'come' } as const;

/** A keeper that stands for two seconds, and then comes. */
function night(breakpoints: Record<string, BreakpointDocument> = {}): ProjectDocument {
  const document = newProject('Night');
  const [mind] = Object.keys(document.minds);
  document.minds[mind].machine = {
    initial: 'stand',
    states: [{ id: 'stand', transitions: [{ to: 'come', after: 2 }] }, { id: 'come' }],
  };
  return { ...document, breakpoints };
}
const [KEEPER] = Object.keys(night().grounds[night().start.ground].agents).filter(
  (name) => name !== night().start.play,
);
const COMES: BreakpointDocument = { on: 'enter', of: 'come' };

describe('a run with breakpoints', () => {
  it('rests at the tick in which one is met, at its own pace and as fast as it goes', async () => {
    const paced = await started(night({ comes: COMES }));
    paced.engine.play();
    const stopped = paced.pass(10_000);
    expect(stopped.playing).toBe(false);
    expect(stopped.stops).toMatchObject([{ breakpoint: 'comes', agent: KEEPER }]);
    expect(stopped.tick).toBe(stopped.stops[0].tick);

    const fast = await started(night({ comes: COMES }));
    fast.engine.runOn();
    expect(fast.frame()).toMatchObject({ tick: stopped.tick, towards: null, hash: stopped.hash });
    // It goes on from there, and does not stop for the same again.
    fast.engine.play();
    expect(fast.pass(2000).tick).toBeGreaterThan(stopped.tick + 60);
  });

  it('says how far it is to run on to, and rests when it is paused', async () => {
    const { engine, frame } = await started(
      night({ never: { on: 'enter', of: 'stand', after: 9 } }),
    );
    engine.runOn();
    engine.pause();
    expect(frame()).toMatchObject({ playing: false, towards: null });
  });

  it('goes back to where one was met last, or says that none was', async () => {
    const { engine, frame } = await started(night({ comes: COMES }));
    expect(await engine.goBack()).toMatch(/No breakpoint was met/);
    engine.nudge(300);
    const { tick } = frame();
    engine.seek(tick + 100);
    frame();
    expect(await engine.goBack()).toBeNull();
    expect(frame()).toMatchObject({ tick, stops: [{ breakpoint: 'comes' }] });
  });

  it('steps no further than to the tick in which one is met', async () => {
    const { engine, frame } = await started(night({ comes: COMES }));
    engine.nudge(300);
    expect(frame().tick).toBeLessThan(300);
    expect(frame().stops).toHaveLength(1);
  });

  it('goes on under the same program where an edit changes nothing but them', async () => {
    const document = night();
    const { engine, frame, frames } = await started(document);
    engine.nudge(30);
    frame();
    const before = frames.length;
    // As it comes from the page: a copy, of which nothing is the same object.
    await engine.submit(structuredClone({ ...document, breakpoints: { comes: COMES } }), 2);
    expect(frame()).toMatchObject({ tick: 30, edit: 2 });
    expect(frames.slice(before).every(({ program }) => program === null)).toBe(true);
    engine.runOn();
    expect(frame().stops).toMatchObject([{ breakpoint: 'comes' }]);
  });
});

describe('questions', () => {
  it('are answered at the tick that is shown, and refused in words', async () => {
    const { engine, frame } = await started(night());
    engine.nudge(30);
    frame();
    expect(
      await engine.ask({ agent: KEEPER, asking: { ask: 'whyNot', target: COME } }),
    ).toMatchObject({
      tick: 30,
      answer: { holds: false },
    });
    expect(await engine.ask({ agent: KEEPER, asking: { ask: 'why' } })).toMatchObject({
      answer: { holds: true },
    });
    expect(await engine.ask({ agent: KEEPER, asking: { ask: 'moves' } })).toMatchObject({
      answer: { statement: expect.stringMatching(/moves at|stands still/) },
    });
    expect(
      await engine.ask({ agent: KEEPER, asking: { ask: 'notices', agent: 'moth' } }),
    ).toMatchObject({
      trouble: expect.stringContaining('There is no other agent “moth”'),
    });
    expect(await engine.ask({ agent: 'nobody', asking: { ask: 'why' } })).toMatchObject({
      trouble: expect.stringContaining('There is no agent “nobody”'),
    });
  });

  it('find the change of a number that would have changed the answer', async () => {
    const { engine, frame, drained } = await started(night());
    engine.nudge(60);
    frame();
    const seen: number[] = [];
    const found = await drained(
      engine.tryChange({ agent: KEEPER, target: COME }, ({ tried }) => seen.push(tried)),
    );
    expect(found).toMatchObject({ found: { before: 2, from: 0 } });
    expect(seen.length).toBeGreaterThan(1);
    expect(frame()).toMatchObject({ tick: 60, head: 60 });
  });

  it('are given up when the run moves, or the user ends them', async () => {
    const { engine, frame, drained } = await started(night());
    engine.nudge(60);
    frame();
    const ask = () => engine.tryChange({ agent: KEEPER, target: COME }, () => {});
    const moved = ask();
    engine.nudge(-10);
    expect(await drained(moved)).toMatchObject({ trouble: expect.stringContaining('moved on') });
    const ended = ask();
    engine.stopLooking();
    expect(await drained(ended)).toEqual({ trouble: 'The search was ended.' });
  });
});
