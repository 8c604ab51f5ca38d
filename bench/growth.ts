import { createWorld, tick, type ProjectDocument, type World } from '@crooked-lantern/core';
import { rounded, sideBySide, timed, type Figure } from './measure.ts';
import { programOf } from './orchards.ts';

/** What one of many costs against one of few, at the same density, in what agents ask and do of each other. */

const FEW = 100;
const MANY = 800;

type Mind = ProjectDocument['minds'][string];

interface Crowd {
  mind: Mind;
  /** Metres from one to the next. */
  spacing: number;
  /** Whether all but the first have no mind and are its enemies. */
  oneDecides?: boolean;
}

/** So many agents in rows. */
function crowd(count: number, { mind, spacing, oneDecides = false }: Crowd): World {
  const columns = Math.ceil(Math.sqrt(count));
  const size = (columns + 1) * spacing;
  const body = { radius: 0.3, acceleration: 20, turnRate: 360 };
  const gleaner = {
    title: 'Gleaner',
    faction: 'gleaners',
    body,
    gaits: { walk: 1.5 },
    gait: 'walk',
  };
  const keeper = {
    ...gleaner,
    title: 'Keeper',
    faction: 'keepers',
    mind: 'keeper',
    squad: 'rounds',
    moves: { sweep: { windUp: 0.1, active: 0.2, reach: 1, damage: 1 } },
    ...(oneDecides
      ? {
          sight: {
            cones: [{ range: 2 * size, halfAngle: 180, gain: 90 }],
            fade: 0.1,
            grace: 1,
            forgetAfter: 60,
            curious: 0.1,
            certain: 0.5,
          },
        }
      : {}),
  };
  const agents = Object.fromEntries(
    Array.from({ length: count }, (_, i) => [
      `agent${String(i).padStart(4, '0')}`,
      {
        archetype: oneDecides && i > 0 ? 'gleaner' : 'keeper',
        at: [spacing * (1 + (i % columns)), spacing * (1 + Math.floor(i / columns))] as [
          number,
          number,
        ],
      },
    ]),
  );
  return createWorld(
    programOf({
      format: 'crooked-lantern/project',
      version: 2,
      title: 'A crowd',
      minds: { keeper: mind },
      squads: { rounds: { title: 'Rounds' } },
      archetypes: { gleaner, keeper },
      grounds: {
        meadow: { title: 'Meadow', width: size, height: size, walls: [], routes: {}, agents },
      },
      start: { ground: 'meadow', seed: 1 },
    } as ProjectDocument),
  );
}

function growth(figure: string, unit: string, of: Crowd): Figure {
  const worlds = [MANY, FEW].map((count) => crowd(count, of));
  for (const world of worlds) for (let i = 0; i < 120; i++) tick(world);
  const [many, few] = worlds.map((world, i) => () => {
    // As many agents' ticks in both.
    const ticks = i === 0 ? 6 : (6 * MANY) / FEW;
    return timed(() => {
      for (let k = 0; k < ticks; k++) tick(world);
    });
  });
  const { a, b, ratio } = sideBySide(many, few, 31, 5);
  const us = (ms: number) => rounded((ms * 1000) / (6 * MANY));
  return {
    figure,
    value: rounded(ratio),
    unit,
    goal: '<= 1.3',
    detail: { [`us_at_${MANY}`]: us(a), [`us_at_${FEW}`]: us(b) },
  };
}

/** Members of one squad that ask whether a place is free. */
export const squadGrowth = (): Figure =>
  growth('squad.growth', `time an agent of one squad at ${MANY} / at ${FEW}`, {
    spacing: 3,
    mind: {
      title: 'Keeper',
      activity: { tree: 'main' },
      trees: {
        main: {
          root: {
            selector: [
              { when: '!isFree(self.post) && isFree(self.place)', do: 'wait', seconds: 1 },
              { do: 'wait', seconds: 0.01 },
            ],
          },
        },
      },
    },
  });

/** Agents that strike all the time, with no one near. */
export const strikeGrowth = (): Figure =>
  growth('strike.growth', `time an agent that strikes at ${MANY} / at ${FEW}, no one near`, {
    spacing: 6,
    mind: { title: 'Keeper', activity: { do: 'strike', move: 'sweep' } },
  });

/** One that chooses among all enemies it knows. */
export const knownGrowth = (): Figure =>
  growth('known.growth', `time of a choice for each known enemy at ${MANY} / at ${FEW}`, {
    spacing: 3,
    oneDecides: true,
    mind: {
      title: 'Keeper',
      activity: { choice: 'whom' },
      choices: {
        whom: {
          options: [
            {
              id: 'chase',
              each: { as: 'foe', agents: 'hostile' },
              considerations: [
                { input: 'distance(foe)', from: 100, to: 0 },
                { input: 'awareness(foe)' },
                { input: 'bearing(foe)', from: -180, to: 180 },
              ],
              does: { do: 'wait', seconds: 9 },
            },
          ],
        },
      },
    },
  });
