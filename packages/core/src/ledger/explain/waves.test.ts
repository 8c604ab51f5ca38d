import { describe, expect, it } from 'vitest';
import { gameProject } from '../../testing/director.fixture.ts';
import { programOf } from '../../testing/orchard.fixture.ts';
import { advance, createRun } from '../run.ts';
import { whyNoAgent } from './waves.ts';

/** Asked of a wave that is held up by a keeper who stands in its only way in. */
describe('why no agent of a wave comes', () => {
  const document = gameProject({ wave: { count: 3, at: ['west'], gap: 0.2 } });
  document.grounds.corner.agents.keeper.at = [1, 2.2];
  const run = createRun(programOf(document), 1);
  for (let i = 0; i < 90; i++) advance(run);
  const ask = (tick: number, wave = 'beetles') => whyNoAgent({ run, agent: 'keeper', tick }, wave);

  it('names what holds it up, and since when, as it was at the tick', () => {
    const { statement, since, cause, values } = ask(61);
    expect(statement).toBe(
      'no agent of beetles comes now: there is no room at West gap, for 1.0 s',
    );
    expect(since).toBe(1);
    expect(values).toEqual([
      { part: 'alive', value: '0' },
      { part: 'to come', value: '3' },
    ]);
    expect(cause.map((each) => `${each.since} ${each.statement}`)).toEqual([
      '1 it was held up: there is no room at West gap',
      '1 it came for the first time',
    ]);
  });

  it('refuses a wave there is not, and says which there are', () => {
    expect(() => ask(61, 'moths')).toThrow('There is no wave “moths”. There are: beetles.');
  });
});
