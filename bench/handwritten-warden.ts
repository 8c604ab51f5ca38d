import type { Agent } from '@crooked-lantern/core';

/**
 * The demo's warden as a good gameplay programmer would write it by hand for a game: one flat switch,
 * no recording, no explanation, nothing that can be edited while it runs. It makes the very decisions the
 * compiled mind makes, which a test proves.
 */

const ROUNDS = 1;
const PEER = 2;
const CHASE = 3;
const COLLAR = 4;
const GO_THERE = 5;
const LOOK_LEFT = 6;
const LOOK_RIGHT = 7;

const LEGS_ARRIVED = 2;
const LEGS_FAILED = 3;
const FACING_TOLERANCE = 0.035;
const STRETCH = 2;

interface Warden {
  where: number;
  since: number;
  quarry: number;
  halfSeenSince: number;
  unseenSince: number;
  /** The activity of the state has ended. */
  done: boolean;
  waypoint: number;
  waitUntil: number;
  leftToTurn: number;
  lastHeading: number;
}

function wrap(angle: number): number {
  if (angle >= -Math.PI && angle < Math.PI) return angle;
  return angle - Math.floor((angle + Math.PI) / (2 * Math.PI)) * 2 * Math.PI;
}

function distanceTo(agent: Agent, other: number): number {
  const dx = agent.known.x(other) - agent.here.x;
  const dy = agent.known.y(other) - agent.here.y;
  return Math.sqrt(dx * dx + dy * dy);
}

export interface HandwrittenWardens {
  decide(agent: Agent): void;
  /** Name of the state an agent is in, as the demo calls it. */
  stateOf(agent: Agent): string;
}

const NAMES = ['', 'rounds', 'peer', 'chase', 'collar', 'comb', 'comb', 'comb'];

/** `atan2` as the core has it, so that both face the same way to the last bit. */
export function handwrittenWardens(
  walk: number,
  run: number,
  atan2: (y: number, x: number) => number,
): HandwrittenWardens {
  const wardens: (Warden | undefined)[] = [];

  function nearestWaypoint(agent: Agent, points: Float64Array): number {
    let best = 0;
    let bestDistance = Infinity;
    for (let i = 0; i < points.length; i += 2) {
      const dx = points[i] - agent.here.x;
      const dy = points[i + 1] - agent.here.y;
      if (dx * dx + dy * dy < bestDistance) {
        best = i / 2;
        bestDistance = dx * dx + dy * dy;
      }
    }
    return best;
  }

  function enter(agent: Agent, warden: Warden, where: number): void {
    const { where: from } = warden;
    if (from === ROUNDS || from === CHASE || from === GO_THERE) agent.stopLegs();
    if (from === PEER || from === COLLAR || from === LOOK_LEFT || from === LOOK_RIGHT)
      agent.freeEyes();
    warden.where = where;
    warden.since = agent.tick;
    warden.halfSeenSince = -1;
    warden.unseenSince = -1;
    warden.done = false;
  }

  function follow(agent: Agent, warden: Warden): void {
    const points = agent.routePoints(agent.self.route);
    agent.goTo(points[2 * warden.waypoint], points[2 * warden.waypoint + 1], 0.15);
  }

  function toRounds(agent: Agent, warden: Warden): void {
    enter(agent, warden, ROUNDS);
    agent.setGait(walk);
  }

  function toChase(agent: Agent, warden: Warden): void {
    enter(agent, warden, CHASE);
    if (agent.known.attentionOf >= 0) {
      warden.quarry = agent.known.attentionOf;
    }
    agent.setGait(run);
    agent.say('Who walks there?');
  }

  function toComb(agent: Agent, warden: Warden): void {
    enter(agent, warden, GO_THERE);
    agent.setGait(walk);
  }

  function lookAgainOrGiveUp(agent: Agent, warden: Warden): void {
    if (warden.where === GO_THERE) enter(agent, warden, LOOK_LEFT);
    else if (warden.where === LOOK_LEFT) enter(agent, warden, LOOK_RIGHT);
    else {
      agent.say('Must have been a fox.');
      warden.quarry = -1;
      toRounds(agent, warden);
    }
  }

  /** Takes one transition if one is due. */
  function transition(agent: Agent, warden: Warden): boolean {
    switch (warden.where) {
      case ROUNDS:
        if (agent.known.awareness(agent.known.attentionOf) >= 1) toChase(agent, warden);
        else if (warden.halfSeenSince >= 0 && agent.tick - warden.halfSeenSince >= 12) {
          enter(agent, warden, PEER);
          agent.stopLegs();
          agent.say('Hm?');
        } else return false;
        return true;
      case PEER:
        if (agent.known.awareness(agent.known.attentionOf) >= 1) toChase(agent, warden);
        else if (agent.tick - warden.since >= 90 && agent.known.attentionStrength < 0.2)
          toRounds(agent, warden);
        else return false;
        return true;
      case CHASE: {
        const distance = distanceTo(agent, warden.quarry);
        if (agent.here.sees(warden.quarry) && distance < 1.2) {
          enter(agent, warden, COLLAR);
          agent.stopLegs();
          agent.say('Put it back.');
        } else if (warden.unseenSince >= 0 && agent.tick - warden.unseenSince >= 90)
          toComb(agent, warden);
        else return false;
        return true;
      }
      case COLLAR: {
        const distance = distanceTo(agent, warden.quarry);
        if (distance > 2) toChase(agent, warden);
        else if (warden.unseenSince >= 0 && agent.tick - warden.unseenSince >= 90)
          toComb(agent, warden);
        else return false;
        return true;
      }
      default:
        if (!agent.here.sees(warden.quarry) || agent.known.awareness(warden.quarry) <= 0.5)
          return false;
        toChase(agent, warden);
        return true;
    }
  }

  function moveTo(agent: Agent, warden: Warden, within: number, settles: boolean): boolean {
    const x = agent.known.x(warden.quarry);
    if (x !== x) return false;
    agent.goTo(x, agent.known.y(warden.quarry), within, settles);
    return true;
  }

  function faceTowards(agent: Agent, x: number, y: number): boolean {
    if (x !== x) return true;
    const goal = atan2(y - agent.here.y, x - agent.here.x);
    agent.turnTo(goal);
    return Math.abs(wrap(goal - agent.self.heading)) <= FACING_TOLERANCE;
  }

  function turnOn(agent: Agent, warden: Warden): void {
    agent.turnTo(agent.self.heading + Math.max(-STRETCH, Math.min(STRETCH, warden.leftToTurn)));
  }

  /** Begins what the state does; true where that is over at once. */
  function begin(agent: Agent, warden: Warden): boolean {
    switch (warden.where) {
      case ROUNDS:
        warden.waypoint = nearestWaypoint(agent, agent.routePoints(agent.self.route));
        warden.waitUntil = 0;
        follow(agent, warden);
        return false;
      case PEER:
        return faceTowards(agent, agent.known.attentionX, agent.known.attentionY);
      case CHASE:
        return !moveTo(agent, warden, 0.9, false);
      case COLLAR:
        return faceTowards(agent, agent.known.x(warden.quarry), agent.known.y(warden.quarry));
      case GO_THERE:
        return !moveTo(agent, warden, 0.5, true);
      default:
        warden.leftToTurn = ((warden.where === LOOK_LEFT ? -110 : 220) * Math.PI) / 180;
        warden.lastHeading = agent.self.heading;
        turnOn(agent, warden);
        return false;
    }
  }

  /** Carries on what the state does; true where it has come to its end. */
  function carryOn(agent: Agent, warden: Warden): boolean {
    switch (warden.where) {
      case ROUNDS: {
        if (warden.waitUntil === 0) {
          if (agent.legs === LEGS_FAILED) return true;
          if (agent.legs !== LEGS_ARRIVED) {
            follow(agent, warden);
            return false;
          }
          warden.waitUntil = agent.tick + agent.routeWait(agent.self.route);
        }
        if (agent.tick < warden.waitUntil) return false;
        warden.waypoint = (warden.waypoint + 1) % (agent.routePoints(agent.self.route).length / 2);
        warden.waitUntil = 0;
        follow(agent, warden);
        return false;
      }
      case PEER:
        return faceTowards(agent, agent.known.attentionX, agent.known.attentionY);
      case COLLAR:
        return faceTowards(agent, agent.known.x(warden.quarry), agent.known.y(warden.quarry));
      case CHASE:
      case GO_THERE:
        return (
          agent.legs === LEGS_ARRIVED ||
          agent.legs === LEGS_FAILED ||
          !moveTo(agent, warden, warden.where === CHASE ? 0.9 : 0.5, warden.where !== CHASE)
        );
      default:
        warden.leftToTurn -= wrap(agent.self.heading - warden.lastHeading);
        warden.lastHeading = agent.self.heading;
        if (Math.abs(warden.leftToTurn) <= FACING_TOLERANCE) return true;
        turnOn(agent, warden);
        return false;
    }
  }

  function end(agent: Agent, warden: Warden): void {
    warden.done = true;
    if (warden.where === ROUNDS || warden.where === CHASE || warden.where === GO_THERE)
      agent.stopLegs();
    else agent.freeEyes();
  }

  /** Follows transitions to where none is due, then begins what is done there. */
  function settle(agent: Agent, warden: Warden, begun: boolean): void {
    let started = begun;
    for (let step = 0; step < 32; step++) {
      while (transition(agent, warden)) started = false;
      if (started) return;
      started = true;
      if (!begin(agent, warden)) return;
      end(agent, warden);
      if (warden.where < GO_THERE) continue;
      lookAgainOrGiveUp(agent, warden);
      started = false;
    }
  }

  return {
    decide(agent) {
      let warden = wardens[agent.index];
      if (!warden) {
        warden = {
          where: ROUNDS,
          since: agent.tick,
          quarry: -1,
          halfSeenSince: -1,
          unseenSince: -1,
          done: false,
          waypoint: 0,
          waitUntil: 0,
          leftToTurn: 0,
          lastHeading: 0,
        };
        wardens[agent.index] = warden;
        agent.setGait(walk);
        settle(agent, warden, false);
        return;
      }
      if (warden.where === ROUNDS) {
        if (!(agent.known.attentionStrength > 0.3)) warden.halfSeenSince = -1;
        else if (warden.halfSeenSince < 0) warden.halfSeenSince = agent.tick;
      } else if (warden.where === CHASE || warden.where === COLLAR) {
        if (agent.here.sees(warden.quarry)) warden.unseenSince = -1;
        else if (warden.unseenSince < 0) warden.unseenSince = agent.tick;
      }
      settle(agent, warden, true);
      if (warden.done || warden.since === agent.tick) return;
      if (!carryOn(agent, warden)) return;
      end(agent, warden);
      if (warden.where < GO_THERE) return;
      lookAgainOrGiveUp(agent, warden);
      settle(agent, warden, false);
    },
    stateOf: (agent) => NAMES[wardens[agent.index]?.where ?? 0],
  };
}
