/**
 * A gamepad of the standard layout: what its sticks and buttons stand for. The left stick, or the cross, walks;
 * the right trigger runs; the left stick pressed crouches.
 */

/** What a gamepad says at one moment. */
export interface PadState {
  /** Where it walks, each −1 to 1; 0 inside the dead zone. */
  x: number;
  y: number;
  runs: boolean;
  /** Places of the buttons that are down. */
  down: ReadonlySet<number>;
}

/** Places of buttons in the standard layout. */
export const STRIKE_BUTTONS = [0, 2, 3, 5];
export const DODGE_BUTTON = 1;
export const GUARD_BUTTONS = [4, 6];
export const CROUCH_BUTTON = 10;
const RUN_BUTTON = 7;
const CROSS = { up: 12, down: 13, left: 14, right: 15 };

/** A stick that is let go rests somewhere near its middle. */
const DEAD_ZONE = 0.25;

type Pad = Pick<Gamepad, 'axes'> & { buttons: readonly Pick<GamepadButton, 'pressed'>[] };

export function readPad({ axes, buttons }: Pad): PadState {
  const down = new Set(buttons.flatMap(({ pressed }, i) => (pressed ? [i] : [])));
  const step = (more: number, less: number) => Number(down.has(more)) - Number(down.has(less));
  const [x = 0, y = 0] = axes;
  const far = Math.hypot(x, y);
  // From the edge of the dead zone on, so that the slowest walk can be had too.
  const share = far > DEAD_ZONE ? Math.min(1, (far - DEAD_ZONE) / (1 - DEAD_ZONE)) / far : 0;
  const cross = [step(CROSS.right, CROSS.left), step(CROSS.down, CROSS.up)];
  // Adding zero makes a negative zero an ordinary one.
  const steady = (value: number) => Math.round(value * 20) / 20 + 0;
  return {
    x: cross[0] || steady(x * share),
    y: cross[1] || steady(y * share),
    runs: down.has(RUN_BUTTON),
    down,
  };
}

/** Reads the first gamepad before each picture while there is one. Returns a function that stops it. */
export function watchGamepad(onState: (now: PadState, before: PadState) => void): () => void {
  let request = 0;
  let before: PadState = { x: 0, y: 0, runs: false, down: new Set() };
  const look = () => {
    const pad = navigator
      .getGamepads()
      .find((each) => each?.connected && each.mapping === 'standard');
    if (pad) {
      const now = readPad(pad);
      onState(now, before);
      before = now;
    }
    request = requestAnimationFrame(look);
  };
  // A gamepad shows itself once one of its buttons is pressed.
  const begin = () => {
    if (request === 0) request = requestAnimationFrame(look);
  };
  const end = () => {
    if (navigator.getGamepads().some((each) => each?.connected)) return;
    cancelAnimationFrame(request);
    request = 0;
  };
  window.addEventListener('gamepadconnected', begin);
  window.addEventListener('gamepaddisconnected', end);
  if (navigator.getGamepads().some((each) => each?.connected)) begin();
  return () => {
    window.removeEventListener('gamepadconnected', begin);
    window.removeEventListener('gamepaddisconnected', end);
    cancelAnimationFrame(request);
  };
}
