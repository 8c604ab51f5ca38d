import {
  archetypeOf,
  THING_RADIUS,
  type GroundDocument,
  type PlacedAgentDocument,
  type ProjectDocument,
  type GroundSpace,
} from '@crooked-lantern/core';
import { keyOf, partAt, partsOf, type AnyPart, type PartRef } from './parts.ts';

/** Why a part can't be where it is put; null where it can. */

interface Ground {
  document: ProjectDocument;
  ground: GroundDocument;
  /** With gates as they are at the start. */
  space: GroundSpace;
}

/** Radius of an agent's body, its own where it has one otherwise; 0 for what is no agent. */
export function radiusOf(document: ProjectDocument, part: AnyPart): number {
  if (part.archetype === undefined) return 0;
  return archetypeOf(document, part as unknown as PlacedAgentDocument)?.body.radius ?? 0;
}

function isOff({ width, height }: GroundDocument, x: number, y: number): boolean {
  return x < 0 || y < 0 || x > width || y > height;
}

/** Who or what else stands where an agent is put; `moving` are moved along with it. */
function crowding(
  here: Ground,
  name: string,
  part: AnyPart,
  moving: ReadonlySet<string>,
): string | null {
  const [x, y] = part.at!;
  const radius = radiusOf(here.document, part);
  for (const [other, agent] of partsOf(here.ground, 'agents')) {
    const { at, title } = agent;
    if (other === name || !at || moving.has(keyOf({ kind: 'agents', name: other }))) continue;
    const reach = radius + radiusOf(here.document, agent);
    if (Math.hypot(at[0] - x, at[1] - y) < reach) return `${title ?? other} stands there`;
  }
  return null;
}

export function whyNotHere(
  here: Ground,
  { kind, name }: PartRef,
  part: AnyPart,
  moving: ReadonlySet<string> = new Set(),
): string | null {
  const { ground, space } = here;
  const corners =
    part.at && part.size ? [[part.at[0] + part.size[0], part.at[1] + part.size[1]]] : [];
  const places = [...(part.at ? [part.at] : []), ...corners, ...(part.points ?? [])];
  if (places.some(([x, y]) => isOff(ground, x, y))) return 'this is off the ground';
  if (kind === 'agents' && part.at) {
    if (space.isBlocked(part.at[0], part.at[1], radiusOf(here.document, part)))
      return 'there is a wall in the way';
    return crowding(here, name, part, moving);
  }
  if ((kind === 'things' || kind === 'posts' || kind === 'spawns') && part.at) {
    if (space.isBlocked(part.at[0], part.at[1], THING_RADIUS)) return 'there is a wall here';
  }
  if (kind === 'plates' && !Object.hasOwn(ground.gates ?? {}, String(part.opens)))
    return 'there is no gate it could open; place a gate first';
  if (kind === 'routes') {
    const blocked = (part.points ?? []).findIndex(([x, y]) => space.isBlocked(x, y, THING_RADIUS));
    if (blocked >= 0) return `waypoint ${blocked + 1} is in a wall`;
  }
  if (kind === 'walls' || kind === 'gates') return buriedAgent(here, kind, part, moving);
  return null;
}

/** An agent that a wall or a closed gate would be put upon. */
function buriedAgent(
  here: Ground,
  kind: PartRef['kind'],
  { at, size, state }: AnyPart,
  moving: ReadonlySet<string>,
): string | null {
  if (!at || !size || (kind === 'gates' && state === 'open')) return null;
  for (const [name, agent] of partsOf(here.ground, 'agents')) {
    if (!agent.at || moving.has(keyOf({ kind: 'agents', name }))) continue;
    const dx = Math.max(at[0] - agent.at[0], 0, agent.at[0] - at[0] - size[0]);
    const dy = Math.max(at[1] - agent.at[1], 0, agent.at[1] - at[1] - size[1]);
    if (Math.hypot(dx, dy) < radiusOf(here.document, agent))
      return `${agent.title ?? name} stands there`;
  }
  return null;
}

/** The first reason among parts that are moved together. */
export function whyNotMoved(
  here: Ground,
  refs: readonly PartRef[],
  move: (part: AnyPart) => AnyPart,
): string | null {
  const moving = new Set(refs.map(keyOf));
  for (const ref of refs) {
    const part = partAt(here.ground, ref);
    const reason = part && whyNotHere(here, ref, move(part), moving);
    if (reason) return reason;
  }
  return null;
}
