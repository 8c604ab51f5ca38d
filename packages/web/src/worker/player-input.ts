import type { Input } from '@crooked-lantern/core';

/**
 * What players do: what the pages tell now, and what is given again from a recording. What is given again
 * goes on until it is over or the user presses something; from then on what is pressed counts.
 */
export interface PlayerInput {
  /** Told by the pages and not yet taken. */
  told: Input[];
  /** To be given again, by tick. */
  again: Map<number, Input[]>;
  /** The tick until which what is told waits; −1 where nothing is given again. */
  until: number;
  /** Whether the user has done something since the run was last moved in time. */
  pressed: boolean;
  /** The keys that are down, as told last; null before. */
  held: Input | null;
}

export function createPlayerInput(): PlayerInput {
  return { told: [], again: new Map(), until: -1, pressed: false, held: null };
}

/** Takes in what a player does. Letting go of a key does not take over from what is given again; all else does. */
export function tell(players: PlayerInput, input: Input): void {
  const { agent, x, y, gait, act, place, control } = input;
  players.told.push(input);
  if (control) players.held = null;
  else if (!place) players.held = { agent, x, y, gait };
  if (x === 0 && y === 0 && !act && !place && !control) return;
  players.pressed = true;
  stopGiving(players);
}

/**
 * Gives recorded input again, from the tick after `from` through the last recorded one, `head`. What was
 * still to be given after that follows it.
 */
export function giveAgain(
  players: PlayerInput,
  recorded: readonly { tick: number; input: Input }[],
  from: number,
  head: number,
): void {
  const again = new Map([...players.again].filter(([tick]) => tick > head));
  for (const { tick, input } of recorded)
    if (tick > from) again.set(tick, [...(again.get(tick) ?? []), input]);
  players.again = again;
  players.until = head;
  for (const tick of again.keys()) players.until = Math.max(players.until, tick);
}

export function stopGiving(players: PlayerInput): void {
  players.again = new Map();
  players.until = -1;
}

/** The run was moved in time: what was told and not taken was meant for another moment, but for which keys are down. */
export function movedInTime(players: PlayerInput): void {
  players.pressed = false;
  players.told = players.told.length > 0 && players.held ? [players.held] : [];
}

/** The run starts again, with the keys that are down where the same agent is played. */
export function begunAnew(players: PlayerInput, played: string | undefined): void {
  stopGiving(players);
  const { held } = players;
  const goesOn = held !== null && held.agent === played && (held.x !== 0 || held.y !== 0);
  players.pressed = false;
  players.told = goesOn ? [held] : [];
}

/** What players do in a tick; takes it. */
export function inputsFor(players: PlayerInput, tick: number): Input[] {
  if (tick <= players.until) return players.again.get(tick) ?? [];
  const { told } = players;
  players.told = [];
  return told;
}
