import { expect, it } from 'vitest';
import type { ProjectDocument } from '../model/documents.ts';
import { nightWatch } from '../testing/demo.fixture.ts';
import { oneChange } from './one-change.ts';

const words = (change: (document: ProjectDocument) => void) => {
  const after = nightWatch();
  change(after);
  return oneChange(nightWatch(), after);
};
const calm = ({ minds }: ProjectDocument) => minds.warden.machine!.states[0];

it('one number or expression that changed is said with both values', () => {
  expect(words((document) => (document.archetypes.warden.body.radius = 0.4))).toMatch(
    /^Body radius of Warden: [\d.]+ → 0\.4$|radius of .*Warden.*: [\d.]+ → 0\.4$/,
  );
  expect(
    words((document) => (calm(document).states![0].transitions![0].when = 'time > 3')),
  ).toMatch(/^guard of transition 1 of Rounds.*: attention\.strength > 0\.3 → time > 3$/);
});

it('nothing is said of what is more than one change, new, gone, or long', () => {
  expect(words(() => {})).toBeNull();
  expect(
    words((document) => {
      document.archetypes.warden.body.radius = 0.4;
      document.archetypes.goose.body.radius = 0.4;
    }),
  ).toBeNull();
  expect(words((document) => calm(document).states!.pop())).toBeNull();
  expect(words((document) => (document.note = 'long '.repeat(40)))).toBeNull();
});
