import { describe, expect, it } from 'vitest';
import { duel, strike, SWEEP, type Duel } from '../../world/mechanics/fighting/fighting.fixture.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import type { ProjectDocument } from '../../model/documents.ts';
import { advance, createRun } from '../run.ts';
import { howItHit, type HitSide } from './hits.ts';
import { QuestionError, type Statement } from './statement.ts';

function asked(options: Duel, side: HitSide = 'dealt', agent = 'keeper', ticks = 120): Statement {
  const run = createRun(programOf(duel(options)), 1, 1);
  while (run.head < ticks) advance(run);
  return howItHit({ run, agent, tick: ticks }, side);
}

/** All statements below one, each with whether it holds. */
const lines = ({ cause }: Statement): string[] =>
  cause.flatMap((each) => [`${each.holds ? '+' : '-'} ${each.statement}`, ...lines(each)]);

const sweep = { moves: { sweep: SWEEP }, keeper: strike('sweep') };

function besideIt({ grounds }: ProjectDocument): void {
  grounds.corner.agents.warden.at = [5, 6.4];
}

const bolt = { ...SWEEP, kind: 'thrown' as const, reach: 6, speed: 10 };

describe('why a move hit or missed', () => {
  it('says how near it was, from where, at what height, and what it took', () => {
    const answer = asked(sweep);
    expect(answer.statement).toBe('sweep of keeper landed on warden');
    expect(lines(answer)).toEqual([
      '+ warden was 0.80 m away from edge to edge, of 1.00 m it reaches',
      '+ warden was 0° off its direction, of 45° to each side and half its body',
      '+ it goes from 0.80 m to 1.40 m above the floor, and warden is 1.70 m high',
      '+ no wall stood between',
      '+ warden held no guard',
      '+ 10 points of damage: all of the 10 of sweep',
      '+ warden had 90 points of health left',
    ]);
    expect(asked(sweep, 'taken', 'warden')).toEqual(answer);
  });

  it('of a miss says what it lacked, in the tick in which it came nearest', () => {
    const answer = asked({ ...sweep, away: 2.4 });
    expect(answer.statement).toBe('sweep of keeper missed warden by 0.80 m');
    expect(lines(answer).filter((line) => line.startsWith('-'))).toEqual([
      '- warden was 1.80 m away from edge to edge, of 1.00 m it reaches',
    ]);
  });

  it.each<[string, Duel, string]>([
    [
      'too far aside',
      { ...sweep, keeper: { do: 'strike', move: 'sweep' }, change: besideIt },
      '- warden was 90° off its direction, of 45° to each side and half its body',
    ],
    [
      'too high',
      { moves: { sweep: { ...SWEEP, from: 1.8, to: 2 } }, keeper: strike('sweep') },
      '- it goes from 1.80 m to 2.00 m above the floor, and warden is 1.70 m high',
    ],
    [
      'thrown too short',
      { moves: { bolt: { ...bolt, reach: 2 } }, keeper: strike('bolt'), away: 4 },
      '- warden was 4.00 m along its way, which ended after 2.20 m',
    ],
    [
      'thrown too high',
      { moves: { bolt: { ...bolt, from: 2.5, to: 2.6 } }, keeper: strike('bolt'), away: 4 },
      '- it was 2.55 m above the floor there, and warden is 1.70 m high',
    ],
  ])('%s', (_, options, lacking) => {
    const answer = asked(options, 'dealt', 'keeper', 200);
    expect(lines(answer).filter((line) => line.startsWith('-'))).toEqual([lacking]);
  });

  it('says of a shot that hits nothing that it lacks', () => {
    const answer = asked({ moves: { bolt }, keeper: strike('bolt'), away: 4 });
    expect(answer.statement).toBe('bolt of keeper landed on warden');
    expect(lines(answer).filter((line) => line.startsWith('-'))).toEqual([]);
  });

  it('says what a guard let through, and why one that was held did not cover', () => {
    const guarded = (raise: number) =>
      asked({
        ...sweep,
        guards: { block: { damageShare: 0.25, raise } },
        warden: { do: 'guard', guard: 'block' },
      });
    const answer = guarded(0.1);
    expect(answer).toMatchObject({ statement: 'sweep of keeper was guarded by warden' });
    expect(lines(answer)).toContain('+ 2.5 points of damage: 25 % of the 10 of sweep');
    const late = lines(guarded(0.6));
    expect(late).toContain('+ 10 points of damage: all of the 10 of sweep');
    expect(late).toContain('- it was raised 0.50 s before; it covers after 0.60 s, for 60.00 s');
  });

  it('can’t be asked where nothing has hit or missed yet', () => {
    expect(() => asked(sweep, 'dealt', 'warden')).toThrow(QuestionError);
    expect(() => asked(sweep, 'taken', 'warden', 10)).toThrow(/No move has hit warden up to here/);
  });
});
