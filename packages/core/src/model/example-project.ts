import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  type MindDocument,
  type NodeDocument,
  type ProjectDocument,
} from './documents.ts';
import { isDirectors } from './actions/director-actions.ts';
import { DIRECTOR_NAME } from './groups.ts';
import { EXAMPLE_CHOICES, EXAMPLE_MEMORY, EXAMPLE_RULES, EXAMPLE_TREES } from './examples.ts';

/** Who tries an example. */
const EXAMPLE_AGENT = 'keeper';

/** Whether it is a director's to do. */
function isDirected(node: NodeDocument): boolean {
  return 'do' in node && typeof node.do === 'string' && isDirectors(node.do);
}

/** Who tries the example of a node: a keeper, or the director where only that can. */
export function exampleAgent(node: NodeDocument): string {
  return isDirected(node) ? DIRECTOR_NAME : EXAMPLE_AGENT;
}

/** A director that does the example every few seconds. */
function directing(node: NodeDocument): MindDocument {
  return {
    title: 'Referee',
    trees: {
      again: { root: { sequence: [{ do: 'wait', seconds: 2 }, { succeed: node }] } },
    },
    activity: { tree: 'again' },
  };
}

/**
 * A small project in which a keeper tries an example again and again: it remembers the agent it sees as `quarry`
 * and then does the node. A gleaner walks its round before it, a basket lies out of its place, another keeper
 * sleeps, and there is a gate. What only a director can do is done by the ground's.
 */
export function exampleProject(node: NodeDocument): ProjectDocument {
  const isForDirector = isDirected(node);
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
          example: { title: 'Example', root: isForDirector ? { do: 'stop' } : node },
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
      ...(isForDirector ? { referee: directing(node) } : {}),
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
          sweep: { windUp: 0.4, active: 0.15, recovery: 0.5, reach: 1.4, damage: 8 },
          hop: { kind: 'dodge', active: 0.25, recovery: 0.1, advance: 1.2, invulnerable: 0.2 },
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
        ...(isForDirector
          ? {
              director: 'referee',
              scores: { baskets: {} },
              spawns: { gap: { at: [18, 3] as [number, number] } },
              waves: { beetles: { archetype: 'gleaner', count: 2, route: 'loop' } },
            }
          : {}),
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
