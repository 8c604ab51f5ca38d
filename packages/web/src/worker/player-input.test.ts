import type { Input } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import {
  begunAnew,
  createPlayerInput,
  giveAgain,
  inputsFor,
  movedInTime,
  tell,
} from './player-input.ts';

const walk = (x: number): Input => ({ agent: 'gleaner', x, y: 0, gait: null });
const still = walk(0);
const throwing: Input = { ...still, act: 'throw', at: [3, 4] };

describe('what is told', () => {
  it('is taken once, in order', () => {
    const players = createPlayerInput();
    tell(players, walk(1));
    tell(players, throwing);
    expect(inputsFor(players, 8)).toEqual([walk(1), throwing]);
    expect(inputsFor(players, 9)).toEqual([]);
  });

  it('was meant for another moment once the run is moved in time, but for which keys are down', () => {
    const players = createPlayerInput();
    tell(players, walk(1));
    tell(players, throwing);
    tell(players, still);
    movedInTime(players);
    expect(inputsFor(players, 3)).toEqual([still]);
    movedInTime(players);
    expect(inputsFor(players, 3)).toEqual([]);
  });

  it('leaves the keys that are down to a run started again, for the same agent alone', () => {
    const players = createPlayerInput();
    tell(players, walk(-1));
    begunAnew(players, 'gleaner');
    expect(inputsFor(players, 1)).toEqual([walk(-1)]);
    begunAnew(players, 'keeper');
    expect(inputsFor(players, 1)).toEqual([]);
    tell(players, still);
    begunAnew(players, 'gleaner');
    expect(inputsFor(players, 1)).toEqual([]);
  });

  it('holds no keys of an agent that was given back to its minds', () => {
    const players = createPlayerInput();
    tell(players, walk(1));
    tell(players, { ...still, control: 'minds' });
    movedInTime(players);
    expect(inputsFor(players, 3)).toEqual([]);
  });
});

describe('what is given again', () => {
  const recorded = [
    { tick: 2, input: walk(1) },
    { tick: 5, input: still },
    { tick: 5, input: throwing },
  ];

  it('comes at its ticks, from where one goes on; what is told waits until it is over', () => {
    const players = createPlayerInput();
    giveAgain(players, recorded, 2, 6);
    tell(players, still);
    expect([2, 3, 4, 5].map((tick) => inputsFor(players, tick))).toEqual([
      [],
      [],
      [],
      [still, throwing],
    ]);
    expect(inputsFor(players, 6)).toEqual([]);
    expect(inputsFor(players, 7)).toEqual([still]);
  });

  it('ends when a key is pressed', () => {
    const players = createPlayerInput();
    giveAgain(players, recorded, 0, 9);
    expect(inputsFor(players, 2)).toEqual([walk(1)]);
    tell(players, walk(-1));
    expect(inputsFor(players, 3)).toEqual([walk(-1)]);
    expect(inputsFor(players, 5)).toEqual([]);
  });

  it('keeps what was to come after the head when one goes back while it is given', () => {
    const players = createPlayerInput();
    giveAgain(players, recorded, 0, 9);
    // Given up to tick 3, then gone back to 1.
    giveAgain(players, [{ tick: 2, input: walk(1) }], 1, 3);
    expect(inputsFor(players, 2)).toEqual([walk(1)]);
    expect(inputsFor(players, 5)).toEqual([still, throwing]);
  });
});
