import { choosePlace, PLACE_DONE, PLACE_FREE, searchPlaces } from '../../../group/search.ts';
import type { SearchPlan } from '../../../mind/host.ts';
import { LEGS_MOVING } from '../../../motion/legs.ts';
import { cos, sin } from '../../../numeric/trigonometry.ts';
import type { AgentState } from '../../state/agent-state.ts';
import type { Search, Surroundings } from '../../state/surroundings.ts';

/** Places that squads share out among their members: where to go, where to search, where to stand around a target. */

/** By how much the radius grows each time a search is widened. */
const WIDENING = 1.6;
/** Seconds without a searcher after which a search is over and forgotten. */
const SEARCH_KEPT = 3;

function groupOf(agent: AgentState): number {
  return agent.placed.squad >= 0 ? agent.placed.squad : -1 - agent.index;
}

function searchOf(world: Surroundings, agent: AgentState): Search | undefined {
  const group = groupOf(agent);
  return world.searches.find((search) => search.group === group);
}

/** Joins the squad's search, or begins one; another where the place is elsewhere. */
export function joinSearch(world: Surroundings, agent: AgentState, plan: SearchPlan): void {
  const known = searchOf(world, agent);
  if (known) {
    const dx = known.x - plan.x;
    const dy = known.y - plan.y;
    known.usedAt = agent.tick;
    const elsewhere = dx * dx + dy * dy > known.radius * known.radius;
    // Who begins when all has been looked at has a new reason to.
    const over = plan.begins && known.by.every((who) => who === PLACE_DONE);
    if (!elsewhere && !over) return;
    world.searches.splice(world.searches.indexOf(known), 1);
  }
  const { x, y, radius, spacing, grid, widenings } = plan;
  const kind = agent.placed.archetype;
  const places = searchPlaces(world.ground, kind, x, y, 0, radius, spacing, grid);
  world.searches.push({
    group: groupOf(agent),
    x,
    y,
    radius,
    spacing,
    grid,
    widenings,
    places,
    by: Array.from({ length: places.length / 2 }, () => PLACE_FREE),
    usedAt: agent.tick,
  });
}

/** Lets a search reach farther; false where it has done so as often as it may. */
function widen(world: Surroundings, agent: AgentState, search: Search): boolean {
  if (search.widenings === 0) return false;
  search.widenings--;
  const from = search.radius;
  search.radius *= WIDENING;
  const { x, y, radius, spacing, grid } = search;
  const kind = agent.placed.archetype;
  const more = searchPlaces(world.ground, kind, x, y, from, radius, spacing, grid);
  search.places.push(...more);
  for (let i = 0; i < more.length; i += 2) search.by.push(PLACE_FREE);
  return true;
}

/** Books the next place for a searcher; where none is left the search is widened. */
export function bookPlace(world: Surroundings, agent: AgentState): void {
  const search = searchOf(world, agent);
  if (!search) return;
  let place = choosePlace(search.places, search.by, agent.x, agent.y);
  while (place < 0 && widen(world, agent, search))
    place = choosePlace(search.places, search.by, agent.x, agent.y);
  if (place >= 0) search.by[place] = agent.index;
}

/** The place an agent has booked in its search; −1 for none. */
function bookedPlace(search: Search, agent: AgentState): number {
  return search.by.indexOf(agent.index);
}

/** Puts the agent's booked place into `place`; false where it has none. */
export function putPlace(world: Surroundings, agent: AgentState, place: Float64Array): boolean {
  const search = searchOf(world, agent);
  const booked = search ? bookedPlace(search, agent) : -1;
  if (booked < 0) return false;
  place[0] = search!.places[2 * booked];
  place[1] = search!.places[2 * booked + 1];
  return true;
}

/** The agent's place has been looked at; or, where it breaks off, is free again. */
export function leavePlace(world: Surroundings, agent: AgentState, done: boolean): void {
  const search = searchOf(world, agent);
  const place = search ? bookedPlace(search, agent) : -1;
  if (place >= 0) search!.by[place] = done ? PLACE_DONE : PLACE_FREE;
}

/** Drops the searches that no agent takes part in any more. */
export function dropSearches(world: Surroundings, tick: number, ticksPerSecond: number): void {
  if (world.searches.length === 0) return;
  world.searches = world.searches.filter(
    ({ usedAt, by }) => by.some((who) => who >= 0) || tick - usedAt <= SEARCH_KEPT * ticksPerSecond,
  );
}

/** Offset of a place around a target, in metres. */
function slotOffset(slot: number, slots: number, distance: number): [number, number] {
  const angle = (2 * Math.PI * slot) / slots;
  return [cos(angle) * distance, sin(angle) * distance];
}

/** Books for an agent the free place around (x, y) that it is nearest to; leaves it without where none is. */
export function bookSlot(
  world: Surroundings,
  agent: AgentState,
  target: number,
  slots: number,
  distance: number,
  x: number,
  y: number,
): void {
  const taken = new Set(
    world.slots
      .filter((slot) => slot.target === target && slot.agent !== agent.index)
      .map(({ slot, slots: of }) => Math.round((slot / of) * slots) % slots),
  );
  let best = -1;
  let bestSquare = Infinity;
  for (let slot = 0; slot < slots; slot++) {
    if (taken.has(slot)) continue;
    const [ox, oy] = slotOffset(slot, slots, distance);
    if (world.ground.isBlocked(x + ox, y + oy, agent.archetype.radius)) continue;
    if (isTaken(agent, target, x + ox, y + oy)) continue;
    const dx = x + ox - agent.x;
    const dy = y + oy - agent.y;
    const square = dx * dx + dy * dy;
    if (square >= bestSquare) continue;
    best = slot;
    bestSquare = square;
  }
  leaveSlot(world, agent);
  if (best >= 0) world.slots.push({ target, agent: agent.index, slot: best, slots });
}

/** Whether another agent stands where a body would. */
function isTaken(agent: AgentState, target: number, x: number, y: number): boolean {
  return agent.mates().some((other) => {
    if (other.index === target || other.body.legs === LEGS_MOVING) return false;
    const reach = agent.archetype.radius + other.archetype.radius;
    const [dx, dy] = [other.x - x, other.y - y];
    return dx * dx + dy * dy < reach * reach;
  });
}

export function leaveSlot(world: Surroundings, agent: AgentState): void {
  world.slots = world.slots.filter((slot) => slot.agent !== agent.index);
}

/** Puts the offset of the agent's place around a target into `place`; false where it has none there. */
export function putSlot(
  world: Surroundings,
  agent: AgentState,
  target: number,
  distance: number,
  place: Float64Array,
): boolean {
  const booked = world.slots.find((slot) => slot.agent === agent.index && slot.target === target);
  if (!booked) return false;
  [place[0], place[1]] = slotOffset(booked.slot, booked.slots, distance);
  return true;
}
