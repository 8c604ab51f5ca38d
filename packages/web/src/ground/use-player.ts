import {
  THROW_RANGE,
  type GuardProgram,
  type Input,
  type MoveProgram,
  type Program,
} from '@crooked-lantern/core';
import { useCallback, useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import type { Frame } from '../engine/protocol.ts';
import { useEngine } from '../engine/use-engine.tsx';
import { bodyAt } from './drawing/bodies.ts';
import { faded, toX, toY, type Painter } from './drawing/view.ts';
import {
  CROUCH_BUTTON,
  DODGE_BUTTON,
  GUARD_BUTTONS,
  STRIKE_BUTTONS,
  watchGamepad,
} from './gamepad.ts';

const DIRECTIONS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What a body can do in a fight. */
export interface Fighting {
  strikes: readonly MoveProgram[];
  dodges: readonly MoveProgram[];
  guards: readonly GuardProgram[];
}

/** Keys of the first moves, guards and the dodge of the played body. */
export const STRIKE_KEYS = ['KeyF', 'KeyR', 'KeyY', 'KeyU'];
export const GUARD_KEYS = ['KeyV', 'KeyB'];
export const DODGE_KEY = 'KeyQ';
const CALL_KEY = 'KeyZ';

/** Seconds of the run, with the key held, until a throw goes as far as it can, and how short the shortest is. */
const FULL_AIM = 1.2;
const SHORTEST = 1.5;

/** Gaits that the keys choose from: the fastest, and the fastest crouched one; null where there is none. */
function gaitsOf(
  program: Program | null,
  agent: number,
): { run: string | null; creep: string | null } {
  const placed = program?.agents[agent];
  if (!program || !placed) return { run: null, creep: null };
  const { speeds, crouched } = program.archetypes[placed.archetype];
  const fastest = (wanted: (gait: number) => boolean) => {
    let best = -1;
    speeds.forEach((speed, gait) => {
      if (speed > 0 && wanted(gait) && !(speeds[best] >= speed)) best = gait;
    });
    return program.gaits[best] ?? null;
  };
  return { run: fastest((gait) => !crouched[gait]), creep: fastest((gait) => crouched[gait]) };
}

/**
 * Keys that drive the played agent while the ground has focus. Returns the handlers for the focused
 * element, and where a throw is aimed while its key is held.
 */
export function usePlayer(program: Program | null, played: number) {
  const engine = useEngine();
  const agent = program?.agents[played]?.name ?? null;
  const { run, creep } = gaitsOf(program, played);
  const held = useRef(new Set<string>());
  const sent = useRef('0 0 ');
  const running = useRef(false);
  /** What the gamepad adds to the keys. */
  const stick = useRef({ x: 0, y: 0, runs: false });
  const crouched = useRef(false);
  /** The tick since which a throw is aimed; null while none is. */
  const aimedSince = useRef<number | null>(null);

  const direction = () => {
    let x = 0;
    let y = 0;
    for (const key of held.current) {
      x += DIRECTIONS[key][0];
      y += DIRECTIONS[key][1];
    }
    return { x: x || stick.current.x, y: y || stick.current.y };
  };

  const send = useCallback(
    (more: Pick<Input, 'act' | 'at' | 'move'> = {}) => {
      if (agent === null) return;
      const { x, y } = direction();
      const runs = running.current || stick.current.runs;
      const gait = runs ? run : crouched.current ? creep : null;
      const signature = `${x} ${y} ${gait ?? ''}`;
      if (signature === sent.current && !more.act) return;
      sent.current = signature;
      engine.setInput({ agent, x, y, gait, ...more });
    },
    [engine, agent, run, creep],
  );

  const release = useCallback(() => {
    held.current.clear();
    running.current = false;
    aimedSince.current = null;
    send();
  }, [send]);

  // Keys that are down before the run is there count from when it is.
  useEffect(() => {
    if (held.current.size > 0) send();
  }, [send]);
  useEffect(() => release, [release]);

  /** What the body can do in a fight: moves in the order of their names, dodges apart. */
  const fighting = useMemo((): Fighting => {
    const placed = program?.agents[played];
    const archetype = placed && program.archetypes[placed.archetype];
    const moves = archetype?.moves ?? [];
    return {
      strikes: moves.filter(({ kind }) => kind !== 'dodge'),
      dodges: moves.filter(({ kind }) => kind === 'dodge'),
      guards: archetype?.guards ?? [],
    };
  }, [program, played]);
  /** Begins what a key or a button stands for; false for one that stands for nothing in a fight. */
  const fight = useCallback(
    (strikeAt: number, guardAt: number, dodges: boolean): boolean => {
      const strike = fighting.strikes[strikeAt];
      const guard = fighting.guards[guardAt];
      const [dodge] = fighting.dodges;
      if (strike) send({ act: 'strike', move: strike.name });
      else if (guard) send({ act: 'guard', move: guard.name });
      else if (dodges && dodge) send({ act: 'dodge', move: dodge.name });
      else return false;
      return true;
    },
    [fighting, send],
  );
  useEffect(
    () =>
      watchGamepad((now, before) => {
        stick.current = now;
        for (const button of now.down) {
          if (before.down.has(button)) continue;
          if (button === CROUCH_BUTTON) crouched.current = !crouched.current;
          fight(
            STRIKE_BUTTONS.indexOf(button),
            GUARD_BUTTONS.indexOf(button),
            button === DODGE_BUTTON,
          );
        }
        for (const button of before.down)
          if (!now.down.has(button) && fighting.guards[GUARD_BUTTONS.indexOf(button)])
            send({ act: 'lower' });
        send();
      }),
    [fight, fighting, send],
  );

  /** Where a throw would go now: ahead, the farther the longer the key has been held. */
  const aim = (frame: Frame): [number, number] | null => {
    if (aimedSince.current === null || !program || played < 0) return null;
    const { x, y, heading, carried } = bodyAt(frame, played);
    if (carried < 0) return null;
    const seconds = Math.max(0, frame.tick - aimedSince.current) / program.ticksPerSecond;
    const share = Math.min(1, seconds / FULL_AIM);
    const away = SHORTEST + (THROW_RANGE - SHORTEST) * share;
    return [x + Math.cos(heading) * away, y + Math.sin(heading) * away];
  };

  return {
    aim,
    fighting,
    onKeyDown(event: KeyboardEvent) {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      // When it is over, the key that starts again does nothing else.
      if (engine.frame?.game?.result && event.code === 'KeyR') return;
      running.current = event.shiftKey;
      if (event.key in DIRECTIONS) held.current.add(event.key);
      else if (event.repeat) return;
      else if (event.code === 'KeyC') crouched.current = !crouched.current;
      else if (event.code === 'KeyE') {
        const { frame } = engine;
        const carries = frame !== null && played >= 0 && bodyAt(frame, played).carried >= 0;
        send({ act: carries ? 'drop' : 'pickUp' });
      } else if (event.code === 'KeyO') send({ act: 'use' });
      else if (event.code === CALL_KEY) send({ act: 'call' });
      else if (event.code === 'KeyT') aimedSince.current = engine.frame?.tick ?? null;
      else if (
        !fight(
          STRIKE_KEYS.indexOf(event.code),
          GUARD_KEYS.indexOf(event.code),
          event.code === DODGE_KEY,
        ) &&
        event.key !== 'Shift'
      )
        return;
      event.preventDefault();
      event.stopPropagation();
      send();
    },
    onKeyUp(event: KeyboardEvent) {
      running.current = event.shiftKey;
      held.current.delete(event.key);
      if (fighting.guards[GUARD_KEYS.indexOf(event.code)]) return send({ act: 'lower' });
      const { frame } = engine;
      if (event.code === 'KeyT' && frame) {
        const at = aim(frame);
        aimedSince.current = null;
        if (at) return send({ act: 'throw', at });
      }
      send();
    },
    onBlur: release,
  };
}

/** The place a throw is aimed at. */
export function drawAim({ context, view, tokens }: Painter, at: [number, number] | null): void {
  if (!at) return;
  const [x, y] = [toX(view, at[0]), toY(view, at[1])];
  context.strokeStyle = faded(tokens.found, 0.9);
  context.lineWidth = 1.5;
  context.beginPath();
  context.arc(x, y, 6, 0, 2 * Math.PI);
  context.moveTo(x - 9, y);
  context.lineTo(x + 9, y);
  context.moveTo(x, y - 9);
  context.lineTo(x, y + 9);
  context.stroke();
}
