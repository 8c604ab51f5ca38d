import { expect, it } from 'vitest';
import { titleOfCopy } from './copy-title.ts';

it.each([
  ['Warden', [], 'Warden 2'],
  ['Warden', ['Warden', 'Warden 2', 'Warden 3'], 'Warden 4'],
  ['Warden 2', ['Warden 2'], 'Warden 3'],
  ['2', [], '2 2'],
  ['Shed 12b', [], 'Shed 12b 2'],
  ['x'.repeat(80), [], `${'x'.repeat(78)} 2`],
])('a copy of “%s” beside %j is called “%s”', (title, taken, copy) => {
  expect(titleOfCopy(title, taken)).toBe(copy);
});
