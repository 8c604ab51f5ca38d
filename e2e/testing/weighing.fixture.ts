import type { OptionDocument, ProjectDocument } from '@crooked-lantern/core';

/** A corner in which one keeper weighs what to do about a gleaner that walks round and round. */

const body = { radius: 0.3, acceleration: 20, turnRate: 360 };

export const OPTIONS: OptionDocument[] = [
  {
    id: 'closeIn',
    title: 'Close in',
    considerations: [
      {
        title: 'Reach',
        input: 'distance(attention.of)',
        from: 0,
        to: 10,
        curve: { shape: 'linear', slope: 0, offset: 0.8 },
      },
      { title: 'Sure of it', input: 'awareness(attention.of)' },
    ],
    does: { do: 'moveTo', to: 'attention.of', within: 1.5 },
  },
  {
    id: 'watch',
    title: 'Watch it',
    weight: 0.7,
    considerations: [{ title: 'Sure of it', input: 'awareness(attention.of)', veto: true }],
    does: { do: 'face', toward: 'attention.place' },
  },
  {
    id: 'hide',
    title: 'Get away',
    weight: 0.3,
    each: { as: 'there', places: 6, within: 4 },
    considerations: [
      { title: 'Reach', input: 'at(there, distance(attention.of))', from: 0, to: 12 },
    ],
    does: { do: 'moveTo', to: 'there', within: 0.5 },
  },
];

/** Puts the corner in place of what a document was; without options the mind only stands. */
export function cornerOf(options: OptionDocument[] | null) {
  return (document: ProjectDocument): void => {
    Object.assign(document, {
      title: 'A corner to weigh in',
      minds: {
        keeper: options
          ? {
              title: 'Keeper',
              activity: { choice: 'whatNow' },
              choices: { whatNow: { title: 'What now?', commitment: 0.05, options } },
            }
          : {
              title: 'Keeper',
              machine: { initial: 'stand', states: [{ id: 'stand', title: 'Stand' }] },
            },
        gleaner: { title: 'Gleaner', activity: { do: 'followRoute', route: 'self.route' } },
      },
      archetypes: {
        gleaner: {
          title: 'Gleaner',
          faction: 'gleaners',
          mind: 'gleaner',
          body,
          gaits: { walk: 1.6 },
          gait: 'walk',
        },
        keeper: {
          title: 'Keeper',
          faction: 'keepers',
          mind: 'keeper',
          body,
          gaits: { walk: 1.5 },
          gait: 'walk',
          sight: {
            cones: [{ range: 16, halfAngle: 170, gain: 6 }],
            fade: 0.5,
            grace: 0.5,
            curious: 0.3,
            certain: 1,
            forgetAfter: 5,
          },
        },
      },
      squads: undefined,
      factions: undefined,
      setups: undefined,
      players: undefined,
      grounds: {
        corner: {
          title: 'Corner',
          width: 20,
          height: 12,
          walls: [{ at: [13, 3], size: [0.3, 4] }],
          routes: {
            loop: {
              points: [
                [14, 9],
                [9, 9],
                [9, 4],
              ],
              end: 'loop',
            },
          },
          agents: {
            gleaner: { title: 'Gleaner', archetype: 'gleaner', at: [10, 6], route: 'loop' },
            keeper: { title: 'Keeper', archetype: 'keeper', at: [3, 6] },
          },
        },
      },
      start: { ground: 'corner', seed: 1 },
    });
  };
}
