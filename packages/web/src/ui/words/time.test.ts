import fc from 'fast-check';
import { expect, it } from 'vitest';
import { agoText, clockText, tickOfText } from './time.ts';

it('reads ticks as minutes, seconds and thousandths', () => {
  expect([
    clockText(0, 60),
    clockText(2478, 60),
    clockText(3605, 60),
    clockText(3600, 60, 0),
    clockText(90, 60, 1),
  ]).toEqual(['0:00.000', '0:41.300', '1:00.083', '1:00', '0:01.5']);
});

it('never gives a minute sixty seconds', () => {
  expect([clockText(3599, 60, 1), clockText(3599, 60, 0)]).toEqual(['1:00.0', '1:00']);
});

it('takes a time as it is read, in seconds, or a tick', () => {
  const read = (text: string) => tickOfText(text, 60);
  expect(
    ['1:23.5', '83.5', ' 83.5 s', 'tick 5010', 'Tick 7', '2:', 'soon', '', '-3'].map(read),
  ).toEqual([5010, 5010, 5010, 5010, 7, null, null, null, null]);
  fc.assert(
    fc.property(fc.nat(1_000_000), fc.constantFrom(10, 30, 60, 120), (tick, perSecond) => {
      expect(tickOfText(clockText(tick, perSecond), perSecond)).toBe(tick);
    }),
  );
});

it('says how long ago in the largest unit that fits', () => {
  const now = Date.parse('2026-03-05T12:00:00Z');
  const ago = (seconds: number) => agoText(new Date(now - seconds * 1000).toISOString(), now);
  expect([ago(-5), ago(12), ago(200), ago(7300), ago(200_000)]).toEqual([
    '0 s ago',
    '12 s ago',
    '3 min ago',
    '2 h ago',
    'on 2026-03-03',
  ]);
});
