import { compilePoint, type PointFunction } from '../../expression/closures.ts';
import { distance } from '../../numeric/distance.ts';
import type { Host } from '../host.ts';
import { entryWidth } from '../memory.ts';
import type { EachProgram } from '../program.ts';

/** Who or what an option is weighed for: agents it knows of, things, places, entries of a list. */

/** So many are weighed at most: those nearest to the agent. */
export const MOST_CANDIDATES = 64;

/** Filled at each weighing; one for all agents of a mind. `b` is the y of a point. */
export interface Candidates {
  count: number;
  a: Float64Array;
  b: Float64Array;
  /** How many there were before all but the nearest were left out. */
  found: number;
}

const ROOM = 1024;

export function createCandidates(): Candidates {
  return { count: 0, a: new Float64Array(ROOM), b: new Float64Array(ROOM), found: 0 };
}

/** Finds the candidates of one option. */
export interface Finder {
  find(host: Host, into: Candidates): void;
  /** Whether one that was picked is still there to be dealt with. */
  isThere(host: Host, a: number, b: number): boolean;
}

function put(into: Candidates, a: number, b: number): void {
  if (into.count === ROOM) return;
  into.a[into.count] = a;
  into.b[into.count] = b;
  into.count++;
}

const away = new Float64Array(ROOM);

/** Leaves the nearest, in the order they were found in. */
function keepNearest(into: Candidates, distanceTo: (i: number) => number): void {
  into.found = into.count;
  if (into.count <= MOST_CANDIDATES) return;
  for (let i = 0; i < into.count; i++) away[i] = distanceTo(i);
  const limit = away.slice(0, into.count).sort()[MOST_CANDIDATES - 1];
  let kept = 0;
  for (let i = 0; i < into.count && kept < MOST_CANDIDATES; i++) {
    if (away[i] > limit) continue;
    into.a[kept] = into.a[i];
    into.b[kept] = into.b[i];
    kept++;
  }
  into.count = kept;
}

function agentFinder(stance: number): Finder {
  return {
    find(host, into) {
      const { tracked } = host.known;
      for (let i = 0; i < tracked.length; i++) {
        const of = tracked.of(i);
        if (host.stanceTo(of) === stance && !host.isGone(of)) put(into, of, 0);
      }
      // In the order of the tracks, so that each is found where the one before it was.
      const { x, y } = host.here;
      keepNearest(into, (i) => {
        const track = tracked.find(into.a[i]);
        return distance(tracked.x(track), tracked.y(track), x, y);
      });
    },
    isThere: (host, agent) => host.known.x(agent) === host.known.x(agent) && !host.isGone(agent),
  };
}

function thingFinder(things: readonly number[]): Finder {
  return {
    find(host, into) {
      for (let i = 0; i < things.length; i++) if (host.isLoose(things[i])) put(into, things[i], 0);
      keepNearest(into, (i) =>
        distance(
          host.around.thingX(into.a[i]),
          host.around.thingY(into.a[i]),
          host.here.x,
          host.here.y,
        ),
      );
    },
    isThere: (host, thing) => host.isLoose(thing) || host.self.carried === thing,
  };
}

function listFinder({ key, of }: EachProgram): Finder {
  if (of.kind !== 'list') throw new Error('No list is named.');
  const { scope, slot } = of;
  const width = entryWidth(key.type);
  const cellsOf = (host: Host) =>
    scope === 'squad' ? host.squadMemory : scope === 'world' ? host.worldMemory : host.memory;
  const isAround = (host: Host, entry: number) => key.type !== 'agent' || !host.isGone(entry);
  return {
    find(host, into) {
      const cells = cellsOf(host);
      for (let i = 0; i < cells[slot]; i++) {
        const at = slot + 1 + i * width;
        if (isAround(host, cells[at])) put(into, cells[at], width === 2 ? cells[at + 1] : 0);
      }
      if (into.count <= MOST_CANDIDATES) into.found = into.count;
      else if (key.type === 'point')
        keepNearest(into, (i) => distance(into.a[i], into.b[i], host.here.x, host.here.y));
      else keepNearest(into, (i) => i);
    },
    isThere(host, a, b) {
      const cells = cellsOf(host);
      for (let i = 0; i < cells[slot]; i++) {
        const at = slot + 1 + i * width;
        if (cells[at] === a && (width === 1 || cells[at + 1] === b)) return isAround(host, a);
      }
      return false;
    },
  };
}

/** Places that can be stood at, around a middle. */
function placeFinder(offsets: readonly number[], around: PointFunction): Finder {
  return {
    find(host, into) {
      const [x, y] = [around.x(host), around.y(host)];
      if (x - x !== 0 || y - y !== 0) return;
      for (let i = 0; i < offsets.length; i += 2) {
        const [px, py] = [x + offsets[i], y + offsets[i + 1]];
        if (host.canStandAt(px, py)) put(into, px, py);
      }
      into.found = into.count;
    },
    isThere: () => true,
  };
}

export function makeFinder(each: EachProgram): Finder {
  switch (each.of.kind) {
    case 'agents':
      return agentFinder(each.of.stance);
    case 'things':
      return thingFinder(each.of.things);
    case 'list':
      return listFinder(each);
    case 'places':
      return placeFinder(each.of.offsets, compilePoint(each.of.around.ir));
  }
}
