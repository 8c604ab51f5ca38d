import { readFileSync } from 'node:fs';
import {
  checkProject,
  readProjectText,
  type Input,
  type NodeDocument,
  type Program,
  type ProjectDocument,
  type StateDocument,
} from '@crooked-lantern/core';

/** Larger orchards made from the demo, for measuring. */

/** Reads a project; works from the sources and from where the build puts this file. */
export function project(file: string): ProjectDocument {
  for (const up of ['..', '../..']) {
    let text: string;
    try {
      text = readFileSync(new URL(`${up}/${file}`, import.meta.url), 'utf8');
    } catch {
      continue;
    }
    const result = readProjectText(text);
    if (!result.ok)
      throw new Error(
        `${file} can't be read: ${result.faults[0].path} ${result.faults[0].message}`,
      );
    return result.document;
  }
  throw new Error(`${file} is nowhere to be found.`);
}

/** Wardens that fit into one copy of the demo's ground without standing on each other. */
const PER_PLOT = 8;

/** Night Watch as it is played: all senses, squads, lamps, gates. */
export const NIGHT_WATCH = 'demo/night-watch.lantern.json';
/** An earlier night, plain enough to be written by hand beside it. */
const PLAIN = 'bench/plain-orchard.lantern.json';

export function programOf(document: ProjectDocument): Program {
  const { program, findings } = checkProject(document);
  if (!program)
    throw new Error(`What is measured has faults: ${findings[0].path} ${findings[0].message}`);
  return program;
}

/** The large orchard as a program. */
export function largeOrchard(
  wardens: number,
  change?: (document: ProjectDocument) => void,
  file?: string,
): Program {
  return programOf(largeProject(wardens, change, file));
}

/**
 * About `wardens` wardens, and a gleaner for every eight, on as many copies of an orchard side by side
 * as it takes. The gleaners walk about; the wardens do all that their project has them do. Squads do
 * not reach from one copy into another.
 */
export function largeProject(
  wardens: number,
  change: (document: ProjectDocument) => void = () => {},
  file = PLAIN,
): ProjectDocument {
  const document = project(file);
  change(document);
  const squads = document.squads ?? {};
  document.squads = {};
  const plot = document.grounds.orchard;
  const plots = Math.ceil(wardens / PER_PLOT);
  const columns = Math.ceil(Math.sqrt(plots));
  const rows = Math.ceil(plots / columns);
  const large: typeof plot = {
    ...plot,
    width: plot.width * columns,
    height: plot.height * rows,
    walls: [],
    lamps: {},
    gates: {},
    things: {},
    posts: {},
    zones: {},
    routes: {},
    agents: {},
  };
  for (let i = 0; i < plots; i++) {
    const dx = (i % columns) * plot.width;
    const dy = Math.floor(i / columns) * plot.height;
    const move = ([x, y]: [number, number]): [number, number] => [x + dx, y + dy];
    for (const wall of plot.walls) large.walls.push({ ...wall, at: move(wall.at) });
    for (const part of ['lamps', 'gates', 'things', 'posts', 'zones'] as const) {
      for (const [name, placed] of Object.entries(plot[part] ?? {}))
        Object.assign(large[part]!, { [`${name}p${i}`]: { ...placed, at: move(placed.at) } });
    }
    for (const [name, squad] of Object.entries(squads)) document.squads[`${name}${i}`] = squad;
    for (const [name, route] of Object.entries(plot.routes))
      large.routes[`${name}${i}`] = { ...route, points: route.points.map(move) };
    large.agents[`gleaner${i}`] = { ...plot.agents.gleaner, at: move(plot.agents.gleaner.at) };
    for (let n = 0; n < PER_PLOT && i * PER_PLOT + n < wardens; n++) {
      const route = n % 2 === 0 ? 'west' : 'east';
      const points = plot.routes[route].points;
      const [[x0, y0], [x1, y1]] = [points[0], points[1]];
      const share = (n >> 1) / 4 + 0.1;
      large.agents[`warden${i}n${n}`] = {
        archetype: 'warden',
        at: move([x0 + (x1 - x0) * share, y0 + (y1 - y0) * share]),
        route: `${route}${i}`,
        ...(squads[route] ? { squad: `${route}${i}` } : {}),
      };
    }
  }
  document.grounds = { orchard: large };
  document.start = { ground: 'orchard', seed: 7 };
  return document;
}

/** Every gleaner strolls in a square of its own, each turn at another time. */
export function strolling(program: Program, tick: number): Input[] {
  const inputs: Input[] = [];
  program.agents.forEach(({ name }, index) => {
    if (!name.startsWith('gleaner')) return;
    const turn = tick + index * 37;
    if (tick !== 1 && turn % 150 !== 0) return;
    const [x, y] = [
      [0, -1],
      [-1, 0],
      [0, 1],
      [1, 0],
    ][Math.floor(turn / 150) % 4];
    inputs.push({ agent: name, x, y, gait: null });
  });
  return inputs;
}

/** Night Watch with a mind as large as they get: 40 states, and on its rounds a tree of 500 rows that all run. */
export function largeMind(): ProjectDocument {
  const document = project(NIGHT_WATCH);
  const { warden } = document.minds;
  const { states } = warden.machine!;
  for (let i = countStates(states); i < 40; i++)
    states.push({
      id: `spare${i}`,
      title: `Spare ${i}`,
      transitions: [{ to: 'rounds', after: 3 }],
    });
  const group = (i: number): NodeDocument => ({
    sequence: [
      { condition: `attention.strength >= ${i} / 1000` },
      { succeed: { sequence: [{ condition: 'known(quarry)' }, { do: 'wait', seconds: 0.1 }] } },
      { selector: [{ condition: 'self.speed > 9' }, { do: 'wait', seconds: 0.5 }] },
    ],
  });
  warden.trees = {
    ...warden.trees,
    large: {
      title: 'Large',
      root: { parallel: Array.from({ length: 55 }, (_, i) => ({ repeat: group(i) })) },
    },
  };
  const rounds = states[0].states!.find(({ id }) => id === 'rounds')!;
  rounds.activity = { tree: 'large' };
  return document;
}

function countStates(states: readonly StateDocument[]): number {
  return states.reduce((sum, { states: inner = [] }) => sum + 1 + countStates(inner), 0);
}
