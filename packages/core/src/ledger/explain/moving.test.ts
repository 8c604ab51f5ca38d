import { describe, expect, it } from 'vitest';
import { cornerProject, errand, programOf } from '../../testing/orchard.fixture.ts';
import type { GroundDocument } from '../../model/documents.ts';
import { advance, createRun, type Run } from '../run.ts';
import { whyItMoves } from './moving.ts';
import type { Statement } from './statement.ts';

/** A keeper on its way from (2, 5) to a post at (12, 5). */
function onItsWay(ground: Partial<GroundDocument> = {}, ticks = 120): Run {
  const document = cornerProject({
    machine: errand({ do: 'moveTo', to: 'self.post', within: 0.3 }),
    ground: {
      posts: { spot: { at: [12, 5] } },
      agents: {
        gleaner: { archetype: 'gleaner', at: [18, 9] },
        keeper: { archetype: 'keeper', at: [2, 5], post: 'spot' },
      },
      ...ground,
    },
  });
  const run = createRun(programOf(document), 1, 1);
  while (run.head < ticks) advance(run);
  return run;
}

const asked = (run: Run, tick: number) => whyItMoves({ run, agent: 'keeper', tick });
const lines = ({ cause }: Statement) => cause.map(({ statement }) => statement);

describe('why an agent moves as it does', () => {
  it('leads along its way to where it was sent, and to the state that sent it', () => {
    const answer = asked(onItsWay(), 60);
    expect(answer.statement).toBe('keeper moves at 1.50 m/s');
    expect(answer.values).toContainEqual({ part: 'x', value: '1.50' });
    expect(lines(answer)).toEqual([
      expect.stringMatching(/^toward \(12.0, 5.0\), with 8.\d m to go$/),
    ]);
    expect(answer.cause[0].values).toEqual([{ part: 'its part', value: '1.50 m/s' }]);
    expect(answer.cause[0].cause[0]).toMatchObject({
      statement: 'set out in go',
      place: { mind: 'keeper', state: 'go' },
    });
  });

  it('says that it stands where nothing sends it, or where it has come to', () => {
    const answer = asked(onItsWay({}, 600), 590);
    expect(answer.statement).toBe('keeper stands still');
    expect(lines(answer)).toEqual(['nothing sends it anywhere']);
    expect(lines(answer.cause[0])).toEqual(['moveTo in go ended in success']);
  });

  it('says why there is no way', () => {
    const run = onItsWay({
      walls: [
        { at: [10, 3], size: [4, 0.4] },
        { at: [10, 6.6], size: [4, 0.4] },
        { at: [10, 3], size: [0.4, 4] },
        { at: [13.6, 3], size: [0.4, 4] },
      ],
    });
    const answer = asked(run, 60);
    expect(lines(answer)).toEqual(['nothing sends it anywhere']);
    expect(lines(answer.cause[0])[0]).toMatch(/^moveTo in go ended in failure: /);
  });

  it('names who stands in its way, and how much of its pace that takes', () => {
    const run = onItsWay({
      agents: {
        gleaner: { archetype: 'gleaner', at: [6, 5.1] },
        keeper: { archetype: 'keeper', at: [2, 5], post: 'spot' },
      },
    });
    const ticks = Array.from({ length: 119 }, (_, i) => asked(run, i + 1));
    const around = ticks.find((answer) => lines(answer).some((line) => line.startsWith('around')))!;
    const [force] = around.cause;
    expect(force.statement).toBe('around a body in its way, or one coming the other way');
    expect(Number.parseFloat(force.values[0].value)).toBeGreaterThan(0);
    expect(force.cause[0].statement).toMatch(/^gleaner is \d\.\d\d m beside it$/);
  });

  it('says so where a player steers', () => {
    const document = cornerProject({
      machine: { initial: 'stand', states: [{ id: 'stand' }] },
    });
    document.start.play = 'keeper';
    const run = createRun(programOf(document), 1, 1);
    while (run.head < 30) advance(run, [{ agent: 'keeper', x: 0, y: 1, gait: null }]);
    const answer = asked(run, 20);
    expect(answer.values).toContainEqual({ part: 'y', value: '1.50' });
    expect(lines(answer)).toEqual(['a player steers it']);
  });
});
