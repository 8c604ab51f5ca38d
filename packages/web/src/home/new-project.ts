import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  WATCHFUL_SIGHT,
  type ProjectDocument,
} from '@crooked-lantern/core';

/** The smallest project worth opening: an empty orchard, a gleaner to play, and a keeper with one state to begin from. */
export function newProject(title: string): ProjectDocument {
  const body = { radius: 0.3, acceleration: 14, turnRate: 480 };
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    title,
    minds: {
      keeper: {
        title: 'Keeper',
        machine: { initial: 'stand', states: [{ id: 'stand', title: 'Stand' }] },
      },
    },
    archetypes: {
      gleaner: {
        title: 'Gleaner',
        faction: 'gleaners',
        body,
        gaits: { walk: 2.2, run: 4.4 },
        gait: 'walk',
      },
      keeper: {
        title: 'Keeper',
        faction: 'keepers',
        mind: 'keeper',
        body,
        gaits: { walk: 1.4, run: 3.6 },
        gait: 'walk',
        sight: WATCHFUL_SIGHT,
      },
    },
    grounds: {
      orchard: {
        title: 'Bare orchard',
        width: 20,
        height: 24,
        walls: [{ at: [7, 11], size: [6, 0.6] }],
        routes: {},
        agents: {
          gleaner: { title: 'Gleaner', archetype: 'gleaner', at: [10, 19], heading: -90 },
          keeper: { title: 'Keeper', archetype: 'keeper', at: [10, 6], heading: 90 },
        },
      },
    },
    start: { ground: 'orchard', play: 'gleaner', seed: 1 },
  };
}
