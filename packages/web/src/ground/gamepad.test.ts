import { describe, expect, it } from 'vitest';
import { CROUCH_BUTTON, readPad, STRIKE_BUTTONS } from './gamepad.ts';

const pad = (axes: number[], ...down: number[]) => ({
  axes,
  buttons: Array.from({ length: 17 }, (_, i) => ({ pressed: down.includes(i) })),
});

describe('a gamepad', () => {
  it('stands still while its stick rests near the middle', () => {
    expect(readPad(pad([0.1, -0.2]))).toMatchObject({ x: 0, y: 0, runs: false });
  });

  it('walks where the stick is pushed, from the dead zone’s edge to full', () => {
    expect(readPad(pad([1, 0]))).toMatchObject({ x: 1, y: 0 });
    expect(readPad(pad([0, -1]))).toMatchObject({ x: 0, y: -1 });
    const { x } = readPad(pad([0.4, 0]));
    expect(x).toBeGreaterThan(0.1);
    expect(x).toBeLessThan(0.3);
    const diagonal = readPad(pad([0.9, 0.9]));
    expect(Math.hypot(diagonal.x, diagonal.y)).toBeLessThanOrEqual(1.05);
  });

  it('walks by its cross, whatever the stick does', () => {
    expect(readPad(pad([0, 0], 14))).toMatchObject({ x: -1, y: 0 });
    expect(readPad(pad([1, 0], 14, 12))).toMatchObject({ x: -1, y: -1 });
  });

  it('says which buttons are down', () => {
    const { runs, down } = readPad(pad([0, 0], 7, STRIKE_BUTTONS[0], CROUCH_BUTTON));
    expect(runs).toBe(true);
    expect(down.has(STRIKE_BUTTONS[0])).toBe(true);
    expect(down.has(CROUCH_BUTTON)).toBe(true);
  });
});
