import {
  EXAMPLES,
  BODY_STRIDE,
  exampleAgent,
  exampleProject,
  type Input,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { newProject } from '../home/new-project.ts';
import type { Frame } from '../engine/protocol.ts';
import { started as begun, TICK_MS } from './testing/rig.fixture.ts';

/** A keeper and a played gleaner on the ground a new project begins with. */
const night = () => newProject('Night');

const PLAYED = night().start.play!;
const started = (document = night()) => begun(document);

const walk = (x: number, y = 0): Input => ({ agent: PLAYED, x, y, gait: null });

/** Where the played agent is: x and y lead what is told of each body. */
function place(frame: Frame): [number, number] {
  const at = names.indexOf(PLAYED) * BODY_STRIDE;
  return [frame.bodies[at], frame.bodies[at + 1]];
}
const names = Object.keys(night().grounds[night().start.ground].agents).sort();

describe('time', () => {
  it('runs with the clock, at its speed', async () => {
    const { engine, pass } = await started();
    engine.play();
    expect(pass(1000).tick).toBeGreaterThanOrEqual(58);
    const { tick } = pass(0);
    engine.setSpeed(0.1);
    expect(pass(1000).tick - tick).toBeLessThanOrEqual(7);
    engine.pause();
    const at = pass(0).tick;
    expect(pass(5000).tick).toBe(at);
  });

  it('lets go what it could not keep up with', async () => {
    const { engine, pass } = await started();
    engine.play();
    pass(100);
    const { tick } = pass(0);
    engine.pause();
    pass(60_000);
    engine.play();
    expect(pass(TICK_MS * 2).tick - tick).toBeLessThan(20);
  });

  it('shows nothing more to a page that is behind, runs on all the same, and shows where it rests', async () => {
    const { engine, pass, frames, page } = await started();
    engine.play();
    pass(100);
    const before = frames.length;
    const { tick } = frames[before - 1];
    page.isBehind = true;
    pass(1000);
    expect(frames).toHaveLength(before);
    engine.pause();
    const rested = pass(TICK_MS);
    expect(rested.playing).toBe(false);
    expect(rested.tick).toBeGreaterThan(tick + 50);
    // What happened meanwhile comes with it.
    page.isBehind = false;
    engine.play();
    expect(pass(100).entriesAnew).toBe(false);
  });

  it('shows nothing to a page that is behind while it runs on to a moment, and rests at once when it is paused', async () => {
    const { engine, pass, frames, page } = await started();
    page.msPerLook = 1;
    page.isBehind = true;
    const before = frames.length;
    engine.seek(100_000);
    pass(100);
    expect(frames).toHaveLength(before);
    page.isBehind = false;
    const going = pass(TICK_MS);
    expect(going.towards).toBe(100_000);
    expect(going.tick).toBeGreaterThan(50);
    expect(going.tick).toBeLessThan(1000);
    page.isBehind = true;
    engine.pause();
    const rested = pass(TICK_MS);
    expect(rested).toMatchObject({ towards: null, playing: false });
  });

  it('goes by ticks, through what is recorded and on', async () => {
    const { engine, frame } = await started();
    engine.nudge(10);
    expect([frame().tick, frame().head]).toEqual([10, 10]);
    engine.nudge(-4);
    expect([frame().tick, frame().head]).toEqual([6, 10]);
    engine.nudge(3);
    expect([frame().tick, frame().head]).toEqual([9, 10]);
    engine.nudge(3);
    expect([frame().tick, frame().head]).toEqual([12, 12]);
  });

  it('runs on to a tick that is asked for, and rests there', async () => {
    const { engine, frame } = await started();
    engine.seek(500);
    expect([frame().tick, frame().playing]).toEqual([500, false]);
    expect(frame().hash).not.toBeNull();
  });
});

describe('what players do', () => {
  it('counts at once, also while the run rests in its past, and then makes another future', async () => {
    const { engine, frame } = await started();
    engine.nudge(60);
    engine.nudge(-30);
    const before = place(frame());
    engine.setInput(walk(1));
    engine.nudge(10);
    expect(place(frame())[0]).toBeGreaterThan(before[0]);
    expect(frame().head).toBe(40);
  });

  it('is given again when one goes on from the past, to the same end', async () => {
    const { engine, frame, pass } = await started();
    engine.nudge(10);
    engine.setInput(walk(1));
    engine.nudge(30);
    engine.setInput(walk(0, 1));
    engine.nudge(30);
    engine.setInput(walk(0));
    engine.nudge(10);
    const { hash } = frame();
    engine.seek(5);
    expect(frame().givesAgain).toBe(true);
    engine.play();
    const { tick, head } = pass(250);
    expect(head).toBe(80);
    expect(tick).toBeLessThan(30);
    // The recorded future stays, and is gone through. Letting go of keys changes nothing.
    engine.setInput(walk(0));
    engine.nudge(80 - tick);
    expect(pass(TICK_MS).tick).toBe(80);
    expect(frame().hash).toBe(hash);
  });

  it('is not given again once something else is pressed', async () => {
    const { engine, frame } = await started();
    engine.setInput(walk(1));
    engine.nudge(60);
    const { x0, hash } = { x0: place(frame())[0], hash: frame().hash };
    engine.seek(20);
    expect(frame().givesAgain).toBe(true);
    engine.setInput(walk(-1));
    expect(frame().givesAgain).toBe(false);
    engine.nudge(40);
    expect(place(frame())[0]).toBeLessThan(x0);
    expect(frame().hash).not.toBe(hash);
  });

  it('goes on through a restart with the keys that are down', async () => {
    const { engine, frame } = await started();
    engine.setInput(walk(1));
    engine.nudge(30);
    const walked = place(frame());
    engine.restart(null);
    expect(frame().tick).toBe(0);
    engine.nudge(30);
    expect(place(frame())).toEqual(walked);
  });

  it('puts an agent down elsewhere by one tick, in the past too', async () => {
    const { engine, frame } = await started();
    engine.nudge(60);
    engine.seek(30);
    const [x, y] = place(frame());
    engine.putDown(PLAYED, x + 1, y);
    expect(place(frame())[0]).toBeCloseTo(x + 1, 3);
    expect([frame().tick, frame().head]).toEqual([31, 31]);
  });

  it('comes again by its recording, to the same hash', async () => {
    const { engine, frame } = await started();
    engine.setInput(walk(1));
    engine.nudge(40);
    engine.setInput({ ...walk(0), act: 'use' });
    engine.nudge(40);
    const { hash } = frame();
    const recording = await engine.recording();
    expect(recording.inputs.map(({ tick }) => tick)).toEqual([1, 41]);
    engine.setInput(walk(-1));
    engine.nudge(100);
    engine.setInput(walk(0));
    engine.replay(recording, 80);
    expect([frame().tick, frame().hash]).toEqual([80, hash]);
    // After it is over, nothing of it is left.
    engine.nudge(1);
    expect((await engine.recording()).inputs).toHaveLength(2);
  });
});

describe('an edit', () => {
  const without = (agent: string) => {
    const document = night();
    delete document.grounds[document.start.ground].agents[agent];
    return document;
  };
  const other = names.find((name) => name !== PLAYED)!;

  it('comes with the frame it is in force in, and back with the frames before it', async () => {
    const { engine, frame, frames } = await started();
    expect(frames[0].program?.agents).toHaveLength(names.length);
    engine.nudge(10);
    expect(frame().program).toBeNull();
    await engine.submit(without(other), 2);
    expect([frame().edit, frame().program?.agents.length]).toEqual([2, names.length - 1]);
    engine.seek(5);
    expect([frame().edit, frame().program?.agents.length]).toEqual([1, names.length]);
    for (const shown of frames) expect(shown.bodies.length).toBeGreaterThan(0);
    engine.nudge(20);
    expect([frame().edit, frame().program?.agents.length]).toEqual([2, names.length - 1]);
  });

  it('with an error changes nothing that runs', async () => {
    const { engine, frame } = await started();
    engine.nudge(10);
    const broken = night();
    broken.start.ground = 'nowhere';
    const { runs, findings } = await engine.submit(broken, 2);
    expect(runs).toBe(false);
    expect(findings.some(({ severity }) => severity === 'error')).toBe(true);
    engine.nudge(1);
    expect([frame().edit, frame().tick]).toEqual([1, 11]);
  });

  it('is what a restart begins with, also from the past', async () => {
    const { engine, frame } = await started();
    engine.nudge(10);
    await engine.submit(without(other), 2);
    engine.seek(5);
    engine.restart(null);
    expect([frame().edit, frame().tick]).toEqual([2, 0]);
  });
});

describe('a set-up', () => {
  it('begins where it says, holds through edits, and says why it can’t begin', async () => {
    const document = night();
    const { at } = document.grounds[document.start.ground].agents[PLAYED];
    document.setups = {
      ready: { title: 'Ready', agents: { [PLAYED]: { at: [at[0] + 1, at[1]] } } },
      lost: { title: 'Lost', agents: { [PLAYED]: { at: [-50, 3] } } },
    };
    const { engine, frame } = await started(document);
    expect(await engine.begin('ready')).toBeNull();
    engine.pause();
    expect(place(frame())[0]).toBeCloseTo(at[0] + 1, 3);
    await engine.submit({ ...document, title: 'Another night' }, 2);
    engine.restart(null);
    expect([frame().edit, place(frame())[0] - at[0]]).toEqual([2, expect.closeTo(1, 3)]);
    expect(await engine.begin('lost')).toContain('off the ground');
    expect(await engine.begin(null)).toBeNull();
    engine.pause();
    expect(place(frame())[0]).toBeCloseTo(at[0], 3);
  });
});

it('an edit that is not of the right form is a finding with its place, and the run goes on', async () => {
  const { engine, pass } = await started();
  engine.play();
  const broken = { ...night(), minds: { 'Not a name': 3 } } as never;
  const { runs, findings } = await engine.submit(broken, 2);
  expect(runs).toBe(false);
  expect(findings).toContainEqual(
    expect.objectContaining({ code: 'form', path: 'minds["Not a name"]' }),
  );
  const { tick } = pass(0);
  expect(pass(500).tick).toBeGreaterThan(tick);
});

describe('an example that is tried out', () => {
  it.each(Object.entries(EXAMPLES))('runs: %s', async (_, node) => {
    const { engine } = await started();
    const tried = await engine.tryOut(exampleProject(node), exampleAgent(node), 3);
    expect('trouble' in tried ? tried.trouble : '').toBe('');
    expect('entries' in tried && tried.entries.some(({ kind }) => kind === 'begin')).toBe(true);
  });

  it('leaves the run that is shown alone', async () => {
    const { engine, frame } = await started();
    const { hash } = frame();
    await engine.tryOut(exampleProject({ do: 'wait', seconds: 1 } as never), 'keeper', 3);
    expect(frame().hash).toBe(hash);
  });

  it('says why it can’t run', async () => {
    const { engine } = await started();
    const broken = exampleProject({ condition: 'nobody' } as never);
    expect(await engine.tryOut(broken, 'keeper', 3)).toEqual({
      trouble: expect.stringContaining('nobody'),
    });
  });
});

/** A night that its director ends after half a second. */
function shortNight() {
  const document = night();
  const ground = document.grounds[document.start.ground];
  ground.director = 'referee';
  ground.scores = { touches: {} };
  document.minds.referee = {
    title: 'Referee',
    machine: {
      initial: 'plays',
      states: [
        { id: 'plays', transitions: [{ to: 'over', after: 0.5 }] },
        {
          id: 'over',
          kind: 'final',
          entry: [{ do: 'end', result: 'won', words: 'Morning.' }],
        },
      ],
    },
  };
  return document;
}

describe('a run that ends', () => {
  it('stands still there, also when it is played on, stepped or sought, and starts again at once', async () => {
    const { engine, pass } = await started(shortNight());
    engine.play();
    const ended = pass(3000);
    expect(ended).toMatchObject({ tick: 31, playing: false });
    expect(ended.game?.result).toEqual({ how: 'won', words: 'Morning.', tick: 31 });
    engine.play();
    expect(pass(500)).toMatchObject({ tick: 31, playing: false });
    engine.nudge(10);
    expect(pass(50).tick).toBe(31);
    engine.seek(200);
    expect(pass(200).tick).toBe(31);
    engine.nudge(-5);
    expect(pass(50)).toMatchObject({ tick: 26, game: { result: null } });
    engine.play();
    expect(pass(1000)).toMatchObject({ tick: 31, playing: false });
    engine.restart(null);
    const again = pass(100);
    expect(again.tick).toBeLessThan(20);
    expect(again.game?.result).toBeNull();
  });
});

describe('what the played side knows', () => {
  it('comes with frames where it is wanted', async () => {
    const { engine, pass } = await started();
    engine.play();
    expect(pass(100).side).toBeNull();
    engine.show({
      rays: false,
      paths: false,
      forces: false,
      known: false,
      side: true,
      places: false,
    });
    expect(pass(100).side?.length).toBeGreaterThanOrEqual(4);
  });
});
