import { expect, it } from 'vitest';
import { agoText, clockText } from './time.ts';

it('reads ticks as minutes, seconds and thousandths', () => {
  expect([
    clockText(0, 60),
    clockText(2478, 60),
    clockText(3605, 60),
    clockText(3600, 60, 0),
    clockText(90, 60, 1),
  ]).toEqual(['0:00.000', '0:41.300', '1:00.083', '1:00', '0:01.5']);
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
