import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  type NodeDocument,
  type ProjectDocument,
} from './documents.ts';
import { EXAMPLE_CHOICES, EXAMPLE_MEMORY, EXAMPLE_RULES, EXAMPLE_TREES } from './examples.ts';

/** Who tries the example. */
export const EXAMPLE_AGENT = 'keeper';

/**
 * A small project in which a keeper tries an example again and again: it remembers whom it sees as `quarry`
 * and then does the node. A gleaner walks its round before it, a basket lies out of its place, another keeper
 * sleeps, and there is a gate.
 */
export function exampleProject(node: NodeDocument): ProjectDocument {
  const body = { radius: 0.3, acceleration: 14, turnRate: 480 };
  const round = (x: number, y: number) => ({
    points: [
      [x, y],
      [x + 3, y],
      [x + 3, y + 3],
    ] as [number, number][],
  });
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    title: 'An example',
    minds: {
      keeper: {
        title: 'Keeper',
        memory: EXAMPLE_MEMORY,
        trees: {
          ...EXAMPLE_TREES,
          example: { title: 'Example', root: node },
          again: {
            root: {
              sequence: [
                { do: 'wait', seconds: 0.6 },
                { do: 'remember', key: 'quarry', value: 'attention.of' },
                { timeout: { succeed: { tree: 'example' } }, seconds: 12 },
              ],
            },
          },
        },
        rules: EXAMPLE_RULES,
        choices: EXAMPLE_CHOICES,
        activity: { tree: 'again' },
      },
      gleaner: { title: 'Gleaner', activity: { do: 'followRoute', route: 'self.route' } },
    },
    archetypes: {
      keeper: {
        title: 'Keeper',
        faction: 'keepers',
        mind: 'keeper',
        body,
        gaits: { walk: 1.4, run: 3.6 },
        gait: 'walk',
        moves: {
          sweep: { windUp: 0.4, active: 0.15, recovery: 0.5, reach: 1.4, harm: 8 },
          hop: { kind: 'dodge', active: 0.25, recovery: 0.1, advance: 1.2, untouchable: 0.2 },
        },
        guards: { high: { raise: 0.1 } },
        sight: {
          cones: [{ range: 16, halfAngle: 80, gain: 4 }],
          fade: 0.5,
          grace: 0.5,
          curious: 0.3,
          certain: 1,
          forgetAfter: 5,
        },
      },
      gleaner: {
        title: 'Gleaner',
        faction: 'gleaners',
        mind: 'gleaner',
        body,
        gaits: { walk: 1 },
        gait: 'walk',
      },
    },
    squads: { watch: { title: 'Watch' } },
    grounds: {
      orchard: {
        title: 'Orchard',
        width: 20,
        height: 16,
        walls: [],
        gates: { northGate: { at: [6, 2], size: [0.2, 0.8] } },
        routes: { round: round(3, 8), loop: round(11, 7) },
        agents: {
          [EXAMPLE_AGENT]: {
            title: 'Keeper',
            archetype: 'keeper',
            at: [5, 8],
            heading: 0,
            route: 'round',
            squad: 'watch',
          },
          gleaner: { title: 'Gleaner', archetype: 'gleaner', at: [11, 8], route: 'loop' },
        },
      },
    },
    start: { ground: 'orchard', seed: 1 },
  };
}
