import type { ActionDocument, ProjectDocument } from '@crooked-lantern/core';

const WAIT: ActionDocument = { do: 'wait', seconds: 1 };
const CALL: ActionDocument = { do: 'raise', event: 'alarm' };

/** A keeper of the orchard: as small as a project can be with one of everything that a mind is made of. */
export const SMALL_PROJECT: ProjectDocument = {
  format: 'crooked-lantern/project',
  version: 2,
  title: 'A corner of the orchard',
  minds: {
    keeper: {
      title: 'Keeper',
      cadence: { every: 0.2 },
      memory: {
        grudge: { type: 'number' },
        places: { type: 'list of point' },
      },
      machine: {
        initial: 'rounds',
        states: [
          {
            id: 'rounds',
            entry: [CALL],
            activity: WAIT,
            transitions: [
              {
                to: 'rest',
                on: 'alarm',
                when: 'false',
                after: 3,
                note: 'it was called',
                do: [CALL],
              },
              { to: 'rest', when: 'false', for: 2 },
            ],
          },
          { id: 'rest' },
        ],
      },
      trees: {
        comb: {
          title: 'Comb',
          root: {
            selector: [
              { ...WAIT, title: 'A while', note: 'why', when: 'false' },
              { random: [{ ...WAIT, weight: 2 }] },
            ],
          },
        },
      },
      rules: {
        habits: {
          title: 'Habits',
          rows: [
            { title: 'First', note: 'why', when: 'false', do: [WAIT] },
            { when: 'false', rows: [{ when: 'false', do: [WAIT] }] },
          ],
        },
      },
      choices: {
        next: {
          title: 'What now?',
          pick: 'weighted',
          options: [
            {
              id: 'one',
              does: WAIT,
              considerations: [{ input: 'distance(self.post)', from: 0, to: 10 }],
            },
          ],
        },
        graded: {
          title: 'Graded',
          combine: 'graded',
          options: [
            {
              id: 'one',
              when: 'false',
              does: WAIT,
              grades: [{ when: { range: 'near' }, strength: 1 }],
            },
          ],
        },
      },
    },
    lamp: {
      title: 'Lamp',
      activity: { tree: 'shine', with: { strength: 1 } },
      trees: {
        shine: { title: 'Shine', parameters: { strength: 'number' }, root: { sequence: [WAIT] } },
        fade: { title: 'Fade', root: { sequence: [WAIT] } },
      },
    },
  },
  bands: {
    range: {
      title: 'Range',
      input: 'distance(self.post)',
      bands: [{ name: 'near', fullTo: 2, to: 4 }],
    },
  },
  archetypes: {
    keeper: {
      title: 'Keeper',
      faction: 'keepers',
      mind: 'keeper',
      body: { radius: 0.3, acceleration: 20, turnRate: 360 },
      gaits: { walk: 1.5 },
      gait: 'walk',
      obedience: 0.8,
    },
  },
  grounds: {
    corner: {
      title: 'Corner',
      width: 20,
      height: 10,
      walls: [],
      routes: {},
      agents: { keeper: { archetype: 'keeper', at: [2, 5] } },
    },
  },
  start: { ground: 'corner', play: 'keeper', seed: 1 },
};
