import { distance } from '../numeric/distance.ts';
import type { GroundSpace } from '../ground/ground.ts';
import { type GroundDocument, type PostDocument } from '../model/documents.ts';
import { SOUND_HEIGHT } from '../ground/from-above/sound.ts';
import { radians, wrapAngle } from '../numeric/trigonometry.ts';
import {
  THING_RADIUS,
  type AgentProgram,
  type ArchetypeProgram,
  type BoxProgram,
  type GroundProgram,
  type ThingProgram,
} from '../world/program/program.ts';
import { startingSpace } from '../world/program/space.ts';
import { USUAL_VIEW } from '../terms/views.ts';
import { numberOf } from '../model/schema/schema.ts';
import {
  GATE_FIELDS,
  GATE_MUFFLING,
  GROUND_FIELDS,
  THING_FIELDS,
  WALL_FIELDS,
} from '../model/documents/ground.ts';
import { indexOfName, ticks, type CompileContext } from './context.ts';
import { numberTitles } from './titles.ts';
import { namesOf } from '../model/names/names.ts';

/** The ground a run takes place on, and the agents placed on it. */

function boxOf({ at, size }: { at: [number, number]; size: [number, number] }): BoxProgram {
  return { x: at[0], y: at[1], width: size[0], height: size[1] };
}

function compileWalls({ walls }: GroundDocument): GroundProgram['walls'] {
  return walls.map((wall) => ({
    kind: wall.kind ?? WALL_FIELDS.kind.usual,
    ...boxOf(wall),
    top: numberOf(wall, 'height', WALL_FIELDS.height),
    muffles: numberOf(wall, 'muffles', WALL_FIELDS.muffles),
  }));
}

/** What is solid at the start on a ground as it is written, whether the rest of the project compiles or not. */
export function writtenSpace(ground: GroundDocument): GroundSpace {
  const { view = USUAL_VIEW, width, height } = ground;
  const [walls, gates] = [compileWalls(ground), compileGates(ground)];
  return startingSpace({ view, width, height, walls, gates });
}

function compileGates({ gates = {} }: GroundDocument): GroundProgram['gates'] {
  return namesOf(gates).map((name) => {
    const gate = gates[name];
    const top = numberOf(gate, 'height', GATE_FIELDS.height);
    const muffles = gate.muffles ?? (top <= SOUND_HEIGHT ? 0 : GATE_MUFFLING);
    return {
      name,
      title: gate.title ?? name,
      ...boxOf(gate),
      top,
      muffles,
      state: gate.state ?? GATE_FIELDS.state.usual,
    };
  });
}

function compileThings({ things = {} }: GroundDocument): ThingProgram[] {
  const compiled = namesOf(things).map((name) => {
    const thing = things[name];
    const { title, kind = THING_FIELDS.kind.usual, at } = thing;
    return {
      name,
      title: title ?? name,
      kind,
      x: at[0],
      y: at[1],
      noise: numberOf(thing, 'noise', THING_FIELDS.noise),
      damage: numberOf(thing, 'damage', THING_FIELDS.damage),
      weight: numberOf(thing, 'weight', THING_FIELDS.weight),
    };
  });
  return numberTitles(compiled);
}

export function compileGround(context: CompileContext): GroundProgram {
  const { document } = context;
  const name = document.start.ground;
  const ground = document.grounds[name];
  const path = `grounds.${name}`;
  const { lamps = {}, plates = {}, spawns = {}, zones = {} } = ground;
  const gates = compileGates(ground);
  const gateNames = gates.map((gate) => gate.name);
  return {
    name,
    title: ground.title,
    view: ground.view ?? USUAL_VIEW,
    width: ground.width,
    height: ground.height,
    light: numberOf(ground, 'light', GROUND_FIELDS.light),
    walls: compileWalls(ground),
    lamps: namesOf(lamps).map((lamp) => {
      const { title, at, reach, strength } = lamps[lamp];
      return { name: lamp, title: title ?? lamp, x: at[0], y: at[1], reach, strength };
    }),
    gates,
    plates: namesOf(plates).map((plate) => ({
      name: plate,
      title: plates[plate].title ?? plate,
      ...boxOf(plates[plate]),
      gate: indexOfName(
        gateNames,
        plates[plate].opens,
        `${path}.plates.${plate}.opens`,
        'gate',
        context,
      ),
    })),
    things: compileThings(ground),
    spawns: namesOf(spawns).map((spawn) => placeOf(spawns[spawn])),
    zones: namesOf(zones).map((zone) => ({
      name: zone,
      title: zones[zone].title ?? zone,
      ...boxOf(zones[zone]),
    })),
    routes: namesOf(ground.routes).map((route) => {
      const { title, points, end, wait } = ground.routes[route];
      return {
        name: route,
        title: title ?? route,
        points: points.flat(),
        end: end ?? 'loop',
        waitTicks: ticks(context, wait ?? 0),
      };
    }),
  };
}

/** The agent's own squad, else its archetype's; −1 for none. */
function squadOf(
  own: string | undefined,
  archetype: string,
  path: string,
  context: CompileContext,
): number {
  const { archetypes, squads } = context.document;
  const inherited = Object.hasOwn(archetypes, archetype) ? archetypes[archetype].squad : undefined;
  const name = own ?? inherited;
  if (name === undefined) return -1;
  const at = own === undefined ? `archetypes.${archetype}.squad` : `${path}.squad`;
  return indexOfName(namesOf(squads ?? {}), name, at, 'squad', context);
}

/** Where an agent without a post belongs: the middle of its home, else where it is placed. */
export function usualPost(
  { zones }: GroundProgram,
  home: number,
  placed: AgentProgram['post'],
): AgentProgram['post'] {
  const zone = zones[home];
  if (!zone) return placed;
  return { x: zone.x + zone.width / 2, y: zone.y + zone.height / 2, heading: placed.heading };
}

export function placeOf({ at, heading }: PostDocument): AgentProgram['post'] {
  return { x: at[0], y: at[1], heading: wrapAngle(radians(heading ?? 0)) };
}

/** Index of what an agent is among the kinds of all agents; −1, with a finding, where there is no such archetype. */
function kindOf(agent: string, archetype: string, path: string, context: CompileContext): number {
  const { kinds, document } = context;
  const own = kinds.findIndex((kind) => kind.agent === agent);
  if (own >= 0) return own;
  return indexOfName(namesOf(document.archetypes), archetype, path, 'archetype', context);
}

export function compileAgents(compiled: GroundProgram, context: CompileContext): AgentProgram[] {
  const { document } = context;
  const ground = document.grounds[document.start.ground];
  const posts = ground.posts ?? {};
  const routes = namesOf(ground.routes);
  const path = `grounds.${document.start.ground}.agents`;
  const agents = namesOf(ground.agents).map((name) => {
    const placed = ground.agents[name];
    const at = `${path}.${name}`;
    const named = (names: readonly string[], value: string | undefined, what: string) =>
      value === undefined ? -1 : indexOfName(names, value, `${at}.${what}`, what, context);
    const homes = namesOf(ground.zones ?? {});
    const home =
      placed.home === undefined
        ? -1
        : indexOfName(homes, placed.home, `${at}.home`, 'zone', context);
    const post = named(namesOf(posts), placed.post, 'post');
    const { x, y, heading } = placeOf(placed);
    return {
      name,
      title: placed.title ?? name,
      archetype: kindOf(name, placed.archetype, `${at}.archetype`, context),
      x,
      y,
      heading,
      post: post < 0 ? usualPost(compiled, home, { x, y, heading }) : placeOf(posts[placed.post!]),
      route: named(routes, placed.route, 'route'),
      squad: squadOf(placed.squad, placed.archetype, at, context),
      home,
      asleep: placed.asleep ?? false,
      away: false,
    };
  });
  return numberTitles(agents);
}

/** Why bodies can't start where they do: they must stand on the ground, in no wall, in no other body. */
export function badPlaces(
  space: GroundSpace,
  agents: readonly AgentProgram[],
  archetypes: readonly ArchetypeProgram[],
): { agent: string; message: string }[] {
  const placed = agents.filter(({ away }) => !away);
  const radius = (agent: AgentProgram) => archetypes[agent.archetype]?.radius ?? 0;
  return placed.flatMap((agent, i) => {
    const { name, title, x, y } = agent;
    const crowded = placed
      .slice(0, i)
      .filter((other) => distance(x, y, other.x, other.y) < radius(agent) + radius(other))
      .map((other) => `“${title}” and “${other.title}” are placed on the same spot. Move one.`);
    const blocked = space.isBlocked(x, y, radius(agent))
      ? [
          `“${title}” (radius ${radius(agent)} m) is placed in a wall or off the ground at (${x}, ${y}). Move it.`,
        ]
      : [];
    return [...blocked, ...crowded].map((message) => ({ agent: name, message }));
  });
}

/** Bodies and things must start where they can be. */
export function checkPlaces(
  context: CompileContext,
  ground: GroundProgram,
  agents: readonly AgentProgram[],
  archetypes: readonly ArchetypeProgram[],
): void {
  const space = startingSpace(ground);
  for (const { agent, message } of badPlaces(space, agents, archetypes))
    context.findings.error('place', `grounds.${ground.name}.agents.${agent}.at`, message);
  for (const thing of ground.things) {
    if (!space.isBlocked(thing.x, thing.y, THING_RADIUS)) continue;
    context.findings.error(
      'place',
      `grounds.${ground.name}.things.${thing.name}.at`,
      `“${thing.title}” lies in a wall or off the ground at (${thing.x}, ${thing.y}). Move it.`,
    );
  }
}
