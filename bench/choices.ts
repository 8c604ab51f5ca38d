import {
  createWorld,
  CURVE_SHAPES,
  setRecorder,
  tick,
  type Agent,
  type ChoiceDocument,
  type CurveDocument,
  type Program,
  type ProjectDocument,
  type World,
} from '@crooked-lantern/core';
import { programOf } from './orchards.ts';

/** A choice as large as choices get (50 options, 6 considerations, 20 targets), and the same scoring written by hand. */

export const OPTIONS = 50;
export const TARGETS = 20;

/** Curves of all shapes but tables and steps, differing from option to option. */
function curveFor(option: number, consideration: number): CurveDocument {
  const t = ((option * 7 + consideration * 3) % 10) / 10;
  switch ((option + consideration) % 4) {
    case 0:
      return { shape: 'linear', slope: 0.6 + t * 0.4, offset: 0.1 };
    case 1:
      return { shape: 'power', exponent: 0.5 + t };
    case 2:
      return { shape: 'logistic', middle: 0.3 + t * 0.4, steepness: 8 };
    default:
      return { shape: 'bell', middle: 0.2 + t * 0.6, width: 0.4 };
  }
}

/** From 0.5 to 1, in no order. */
const weightOf = (option: number) => 0.5 + ((option * 17) % OPTIONS) / 100;

/** What the options look at, and the range of each. */
const INPUTS = [
  ['distance(foe)', 30, 0],
  ['abs(bearing(foe))', 180, 0],
  ['awareness(foe)', 0, 1],
  ['self.healthShare', 0, 1],
  ['healthOf(foe)', 100, 0],
  ['self.light', 0, 1],
] as const;

function choice(): ChoiceDocument {
  return {
    options: Array.from({ length: OPTIONS }, (_, option) => ({
      id: `option${option}`,
      weight: weightOf(option),
      each: { as: 'foe', agents: 'hostile' as const },
      considerations: INPUTS.map(([input, from, to], i) => ({
        input,
        from,
        to,
        curve: curveFor(option, i),
      })),
      does: { do: 'wait', seconds: 600 },
    })),
  };
}

/** A keeper on an open ground that knows of 20 gleaners, and weighs in each decision what to do about which of them. */
function project(): ProjectDocument {
  const body = { radius: 0.3, acceleration: 10, turnRate: 180 };
  const agents: ProjectDocument['grounds'][string]['agents'] = {
    keeper: { archetype: 'keeper', at: [20, 20], heading: 0 },
  };
  for (let i = 0; i < TARGETS; i++)
    agents[`gleaner${i}`] = {
      archetype: i % 2 === 0 ? 'gleaner' : 'weakGleaner',
      at: [20 + Math.cos(i) * (4 + i * 0.6), 20 + Math.sin(i) * (4 + i * 0.6)],
      heading: 0,
    };
  const gleaner = { title: 'Gleaner', faction: 'gleaners', body, gaits: { walk: 1 }, gait: 'walk' };
  return {
    format: 'crooked-lantern/project',
    version: 2,
    title: 'A large choice',
    minds: {
      keeper: { title: 'Keeper', activity: { choice: 'what' }, choices: { what: choice() } },
    },
    archetypes: {
      keeper: {
        title: 'Keeper',
        faction: 'keepers',
        mind: 'keeper',
        body,
        gaits: { walk: 1 },
        gait: 'walk',
        health: 100,
        sight: {
          cones: [{ range: 40, halfAngle: 180, gain: 50 }],
          fade: 0.1,
          grace: 5,
          curious: 0.3,
          certain: 1,
          forgetAfter: 60,
        },
      },
      gleaner: { ...gleaner, health: 100 },
      weakGleaner: { ...gleaner, health: 40 },
    },
    grounds: {
      yard: { title: 'Yard', width: 60, height: 40, light: 0.8, walls: [], routes: {}, agents },
    },
    start: { ground: 'yard', seed: 1 },
  };
}

export function largeChoice(): { program: Program; world: World; agent: Agent } {
  const program = programOf(project());
  const world = createWorld(program);
  setRecorder(world, null);
  for (let i = 0; i < 30; i++) tick(world);
  return { program, world, agent: world.agents.find(({ name }) => name === 'keeper')! };
}

/** What is picked: the option, its target, and its score. */
export interface Pick {
  option: number;
  of: number;
  score: number;
}

/** Weighs once by the compiled choice, without looking on. */
export function weigher(agent: Agent): () => Pick {
  const [chosen] = agent.minds[0].machine.states[0].activity!.choices.values();
  return () => {
    const { option, a, score } = chosen.weigher.weigh(agent, -1, 0, 0, null);
    return { option, of: a, score };
  };
}

type Curve = (x: number) => number;

const unit = (y: number) => (y > 1 ? 1 : y > 0 ? y : 0);

function curveByHand(curve: CurveDocument): Curve {
  switch (curve.shape) {
    case 'linear': {
      const { slope = 1, offset = 0 } = curve;
      return (x) => unit(offset + slope * x);
    }
    case 'power': {
      const { exponent } = curve;
      return (x) => unit(x ** exponent);
    }
    case 'logistic': {
      const { middle, steepness } = curve;
      return (x) => unit(1 / (1 + Math.exp(-steepness * (x - middle))));
    }
    case 'bell': {
      const { middle, width } = curve;
      return (x) => Math.exp(-0.5 * ((x - middle) / width) ** 2);
    }
    default:
      throw new Error(`${CURVE_SHAPES.join(', ')}: only four are written by hand.`);
  }
}

/**
 * The same as careful people write it: what is looked at is read once for each target, options are plain rows
 * of curves, and one that can’t win any more is left.
 */
export function weigherByHand(agent: Agent): () => Pick {
  const weights = Array.from({ length: OPTIONS }, (_, option) => weightOf(option));
  const curves = weights.map((_, option) =>
    INPUTS.map((__, i) => curveByHand(curveFor(option, i))),
  );
  const count = INPUTS.length;
  const inputs = new Float64Array(count);
  const pick: Pick = { option: -1, of: -1, score: 0 };
  return () => {
    pick.option = -1;
    pick.score = 0;
    const { tracked } = agent.known;
    for (let track = 0; track < tracked.length; track++) {
      const of = tracked.of(track);
      if (agent.stanceTo(of) !== 0 || agent.isGone(of)) continue;
      const [dx, dy] = [tracked.x(track) - agent.here.x, tracked.y(track) - agent.here.y];
      let off = Math.abs(Math.atan2(dy, dx) - agent.self.heading);
      if (off > Math.PI) off = 2 * Math.PI - off;
      inputs[0] = unit((30 - Math.sqrt(dx * dx + dy * dy)) / 30);
      inputs[1] = unit(1 - off / Math.PI);
      inputs[2] = unit(tracked.awareness(track));
      inputs[3] = unit(agent.self.healthShare);
      inputs[4] = unit((100 - tracked.seen(track).health) / 100);
      inputs[5] = unit(agent.here.light());
      for (let option = 0; option < OPTIONS; option++) {
        const row = curves[option];
        const weight = weights[option];
        const needed = (pick.score / weight) ** count;
        let product = 1;
        let i = 0;
        for (; i < count; i++) {
          product *= row[i](inputs[i]);
          if (product < needed) break;
        }
        if (i < count) continue;
        const score = weight * product ** (1 / count);
        if (score <= pick.score) continue;
        pick.option = option;
        pick.of = of;
        pick.score = score;
      }
    }
    return pick;
  };
}
