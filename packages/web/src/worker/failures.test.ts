import { PHASES } from '@crooked-lantern/core';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { newProject } from '../home/new-project.ts';
import { ReportedError } from '../state/thrown.ts';
import { guarded } from './guarded.ts';
import { started, type Rig } from './testing/rig.fixture.ts';

const night = () => newProject('Night');

afterEach(() => {
  vi.restoreAllMocks();
});

/** A project that has played for a moment. */
async function playing(): Promise<Rig> {
  const rig = await started(night());
  rig.engine.play();
  rig.pass(1500);
  return rig;
}

describe('a phase of a tick that throws', () => {
  it.each(PHASES.map(({ name }) => name))(
    '%s: the page is told, and the run rests at its last snapshot',
    async (name) => {
      const { engine, pass, failures } = await playing();
      const failed = pass(0).tick + 1;
      const phase = PHASES.find((each) => each.name === name)!;
      const planted = vi.spyOn(phase, 'run').mockImplementation(() => {
        throw new Error(`planted in ${name}`);
      });
      const stopped = pass(100);
      expect(failures).toMatchObject([
        { during: 'run', message: `planted in ${name}`, stopped: true, tick: failed, phase: name },
      ]);
      expect(stopped).toMatchObject({ playing: false, tick: 60, head: failed - 1 });
      planted.mockRestore();
      engine.play();
      const after = pass(1000);
      expect(after.playing).toBe(true);
      expect(after.tick).toBeGreaterThan(failed);
      expect(failures).toHaveLength(1);
    },
  );
});

describe('a tick that throws again and again', () => {
  it('is told each time it is asked for, and never by itself', async () => {
    const { engine, pass, failures } = await playing();
    vi.spyOn(PHASES[3], 'run').mockImplementation(() => {
      throw new Error('planted');
    });
    pass(5000);
    expect(failures).toHaveLength(1);
    engine.play();
    pass(5000);
    expect(failures).toHaveLength(2);
  });

  it('as it steps is answered to the caller that stepped, too', async () => {
    const { engine, pass, failures } = await playing();
    engine.pause();
    vi.spyOn(PHASES[3], 'run').mockImplementation(() => {
      throw new Error('planted');
    });
    expect(() => engine.nudge(1)).toThrow('planted');
    expect(failures).toMatchObject([{ during: 'nudge', stopped: true }]);
    expect(pass(100).playing).toBe(false);
  });
});

describe('showing that throws', () => {
  it('stops the run, is told once, and goes on when it is asked to', async () => {
    const rig = await playing();
    const { engine, pass, failures, frames } = rig;
    const shown = frames.length;
    rig.page.breaks = true;
    pass(2000);
    expect(failures).toMatchObject([{ during: 'run', stopped: true, tick: null }, {}]);
    expect(failures).toHaveLength(2);
    expect(frames).toHaveLength(shown);
    rig.page.breaks = false;
    engine.play();
    expect(pass(100).playing).toBe(true);
  });
});

describe('an edit that throws', () => {
  it('is answered with it, and the edit before goes on', async () => {
    const { engine, pass, failures } = await playing();
    const broken = night();
    Object.defineProperty(broken, 'minds', {
      enumerable: true,
      get() {
        throw new Error('planted');
      },
    });
    await expect(engine.submit(broken, 2, true)).rejects.toThrow('planted');
    expect(failures).toMatchObject([{ during: 'submit', stopped: false, message: 'planted' }]);
    const { tick, edit } = pass(0);
    expect(edit).toBe(1);
    expect(pass(1000).tick).toBeGreaterThan(tick);
  });
});

describe('every entry', () => {
  it('of the engine that throws is told by its name, and answered with what it threw', async () => {
    const { engine } = await started(night());
    const entries = Object.keys(engine);
    expect(entries.length).toBeGreaterThan(35);
    for (const later of [false, true]) {
      const reported: string[] = [];
      const broken = Object.fromEntries(
        entries.map((entry) => [
          entry,
          () => {
            const error = new Error(`planted in ${entry}`);
            if (later) return Promise.reject(error);
            throw error;
          },
        ]),
      );
      const safe = guarded(broken, (entry, { message }) => reported.push(`${entry}: ${message}`));
      for (const entry of entries)
        await expect((async () => safe[entry]())()).rejects.toThrow(ReportedError);
      expect(reported).toEqual(entries.map((entry) => `${entry}: planted in ${entry}`));
    }
  });

  it('of the engine stands behind such a guard', async () => {
    const { engine, failures } = await started(night());
    // What no entry can make anything of.
    const nonsense = Symbol('nonsense') as never;
    const thrown: string[] = [];
    for (const [entry, call] of Object.entries(engine) as [
      string,
      (...args: never[]) => unknown,
    ][]) {
      try {
        await call(nonsense, nonsense, nonsense);
      } catch (error) {
        expect(error).toBeInstanceOf(ReportedError);
        thrown.push(entry);
      }
    }
    expect(thrown.length).toBeGreaterThan(2);
    expect(new Set(failures.map(({ during }) => during))).toEqual(new Set(thrown));
  });

  it('that is told once is not told again by a guard around it', () => {
    const reported: string[] = [];
    const inner = guarded(
      {
        fail(): void {
          throw new Error('planted');
        },
      },
      () => reported.push('inner'),
    );
    const outer = guarded({ fail: () => inner.fail() }, () => reported.push('outer'));
    expect(() => outer.fail()).toThrow('planted');
    expect(reported).toEqual(['inner']);
  });
});
