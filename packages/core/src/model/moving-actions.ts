import { MOST_LEARNED } from '../terms/limits.ts';
import type { ActionSpec } from './action-spec.ts';

/** What legs do. */
export const MOVING_ACTIONS = {
  moveTo: {
    title: 'Move to',
    channel: 'legs',
    lasts: true,
    about:
      'Walks around walls to a place, or to the last known place of an agent, and keeps up when that place changes.',
    succeeds: 'within the distance `within` of the place',
    fails: 'the place is not known, or there is no way to it',
    parameters: {
      to: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      within: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 0.05,
        maximum: 100,
        default: 0.2,
        about: 'how close counts as there',
      },
    },
  },
  followRoute: {
    title: 'Follow route',
    channel: 'legs',
    lasts: true,
    about:
      'Walks the waypoints in order, beginning with the nearest, and stands at each as long as the route says.',
    succeeds: 'at the last waypoint of a route that ends in `stop`; a loop never ends',
    fails: 'there is no route, or no way to the next waypoint',
    parameters: {
      route: {
        kind: 'route',
        required: true,
        about: 'a route of the ground by name, or `self.route` for the one the agent was given',
      },
    },
  },
  wander: {
    title: 'Wander',
    channel: 'legs',
    lasts: true,
    about: 'Strolls from place to place around a middle, each chosen by chance.',
    succeeds: 'never: it goes on until it is stopped',
    fails: 'the middle is not known, or no place around it can be reached',
    parameters: {
      around: {
        kind: 'place',
        required: false,
        default: 'self.post',
        about: 'the middle: a point, or an agent’s last known place',
      },
      radius: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 0.5,
        maximum: 500,
        default: 5,
        about: 'how far from the middle',
      },
      pause: {
        kind: 'number',
        required: false,
        unit: 's',
        minimum: 0,
        maximum: 600,
        default: 1,
        about: 'how long it stands at each place',
      },
    },
  },
  flee: {
    title: 'Flee',
    channel: 'legs',
    lasts: true,
    about: 'Runs away from a place, to where it can get farthest from it.',
    succeeds: 'as far away as `until`',
    fails: 'the place is not known, or there is nowhere to go',
    parameters: {
      from: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      until: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 0.5,
        maximum: 500,
        default: 10,
        about: 'how far is far enough',
      },
    },
  },
  circle: {
    title: 'Circle',
    channel: 'legs',
    lasts: true,
    about: 'Walks around a place at a distance, and keeps up when the place moves.',
    succeeds: 'never: it goes on until it is stopped',
    fails: 'the place is not known',
    parameters: {
      around: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      distance: {
        kind: 'number',
        required: false,
        unit: 'm',
        minimum: 0.5,
        maximum: 100,
        default: 3,
        about: 'from the place',
      },
      turn: {
        kind: 'pattern',
        required: false,
        options: ['clockwise', 'counterclockwise'],
        default: 'clockwise',
        about: 'which way around',
      },
    },
  },
  keepDistance: {
    title: 'Keep distance',
    channel: 'legs',
    lasts: true,
    about: 'Steps back from a place that comes too near and follows one that goes too far.',
    succeeds: 'never: it goes on until it is stopped',
    fails: 'the place is not known',
    parameters: {
      from: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
      least: {
        kind: 'number',
        required: true,
        unit: 'm',
        minimum: 0,
        maximum: 500,
        about: 'nearer than this it backs off',
      },
      most: {
        kind: 'number',
        required: true,
        unit: 'm',
        minimum: 0,
        maximum: 500,
        about: 'farther than this it comes after',
      },
    },
  },
  returnToPost: {
    title: 'Return to post',
    channel: 'legs',
    lasts: true,
    about: 'Goes to where it belongs and turns as it stood there.',
    succeeds: 'standing at its post, turned as there',
    fails: 'there is no way to it',
    parameters: {},
  },
  learnWaypoint: {
    title: 'Learn waypoint',
    channel: null,
    lasts: false,
    about: `Adds a place to a route, for this run only: it stands after the waypoint it is nearest to. A route learns ${MOST_LEARNED} places at most; then the nearest of them is moved.`,
    succeeds: 'at once',
    fails: 'never, unless the route or the place is not known',
    parameters: {
      route: { kind: 'route', required: true, about: 'the route that is added to' },
      at: {
        kind: 'place',
        required: true,
        about: 'a point, or an agent whose last known place is meant',
      },
    },
  },
} as const satisfies Record<string, ActionSpec>;
