import { describe, it } from 'vitest';
import type { NodeDocument } from '../model/documents.ts';
import { exampleProject } from '../model/example-project.ts';
import { EXAMPLES } from '../model/examples.ts';
import { programOf } from '../testing/orchard.fixture.ts';
import { expectPinned, linesOf } from '../testing/pinned.fixture.ts';

/** What each action and node does in its example is done as it was. */

/** What the examples leave out: other parameters, what is nothing, nodes in each other. */
const MORE: readonly NodeDocument[] = [
  { do: 'wander', around: 'self.place', radius: 8, pause: 0 },
  { do: 'wander', around: 'heard.place', radius: 2, pause: 1 },
  { do: 'flee', from: 'quarry', until: 30 },
  { do: 'flee', from: 'heard.place', until: 3 },
  { do: 'circle', around: 'quarry', distance: 1.5, turn: 'clockwise' },
  { do: 'circle', around: 'self.place', distance: 2 },
  { do: 'circle', around: 'heard.place', distance: 2 },
  { do: 'keepDistance', from: 'quarry', min: 7, max: 8 },
  { do: 'keepDistance', from: 'quarry', min: 1, max: 2 },
  { do: 'keepDistance', from: 'self.place', min: 1, max: 2 },
  { do: 'keepDistance', from: 'heard.place', min: 1, max: 2 },
  { sequence: [{ do: 'moveTo', to: 'quarry', within: 3 }, { do: 'returnToPost' }] },
  { timeout: { do: 'moveTo', to: 'quarry', within: 0.9 }, seconds: 1 },
  {
    do: 'search',
    around: 'self.post',
    radius: 4,
    spacing: 2,
    pattern: 'grid',
    look: 0.2,
    widen: 1,
  },
  { do: 'surround', target: 'quarry', distance: 2, places: 3 },
  { do: 'followRoute', route: 'loop' },
  {
    parallel: [
      { do: 'moveTo', to: 'quarry', within: 1.2 },
      { do: 'aim', toward: 'quarry', within: 9 },
    ],
    successes: 2,
    failures: 1,
  },
  {
    sequence: [
      { do: 'moveTo', to: 'quarry', within: 1.2 },
      { do: 'strike', move: 'sweep', at: 'quarry' },
    ],
  },
  { do: 'dodge', move: 'hop', way: 'left' },
  { do: 'dodge', move: 'hop', way: 'right' },
  { do: 'turn', by: 200, uninterrupted: true },
  { do: 'face', toward: 'quarry' },
  {
    sequence: [
      { do: 'add', key: 'combed', value: 'lastSeen(quarry)' },
      { do: 'forget', key: 'combed' },
    ],
  },
  {
    selector: [
      { do: 'moveTo', to: 'heard.place' },
      { do: 'turn', by: 30 },
      { do: 'wait', seconds: 1 },
    ],
  },
  {
    sequence: [
      { chance: { do: 'turn', by: 45 }, probability: 0.5 },
      { do: 'wait', seconds: 0.2 },
    ],
    restart: true,
  },
  {
    selector: [{ condition: 'sees(quarry)' }, { do: 'followRoute', route: 'self.route' }],
    restart: true,
  },
  {
    repeat: {
      sequence: [
        { do: 'turn', by: 90 },
        { chance: { do: 'stop' }, probability: 0.4 },
      ],
    },
    until: 'failure',
  },
  { repeat: { limit: { do: 'turn', by: 20 }, times: 3 }, until: 'failure', times: 5 },
  {
    random: [
      { do: 'say', text: 'One', weight: 1 },
      { do: 'say', text: 'Two', weight: -1 },
      { do: 'turn', by: 9, weight: 2 },
    ],
  },
  {
    parallel: [
      { do: 'turn', by: 180 },
      { do: 'wait', seconds: 0.5 },
      { do: 'moveTo', to: 'quarry' },
    ],
    successes: 1,
  },
  { invert: { timeout: { do: 'moveTo', to: 'quarry', within: 0.9 }, seconds: 0.5 } },
  { delay: { cooldown: { do: 'turn', by: 70 }, seconds: 1 }, seconds: 'doubt + 0.3' },
];

describe('an example', () => {
  const examples = {
    ...EXAMPLES,
    ...Object.fromEntries(MORE.map((node) => [JSON.stringify(node), node])),
  } as Record<string, NodeDocument>;
  it.each(Object.keys(examples))('%s is carried out as it was', (name) => {
    const program = programOf(exampleProject(examples[name]));
    expectPinned(`examples#${name}`, [linesOf(program, 1, 480, () => [], 120)]);
  });
});
