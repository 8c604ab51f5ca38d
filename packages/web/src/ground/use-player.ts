import { useCallback, useEffect, useRef, type KeyboardEvent } from 'react';
import { useEngine } from '../engine/use-engine.tsx';

const DIRECTIONS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * Keys that drive the played agent while the ground has focus: arrows walk, with Shift they run. Gives
 * the handlers for the focused element.
 */
export function usePlayer(agent: string | null, runGait: string | null) {
  const engine = useEngine();
  const held = useRef(new Set<string>());
  const sent = useRef('0 0 false');

  const send = useCallback(
    (running: boolean) => {
      if (agent === null) return;
      let x = 0;
      let y = 0;
      for (const key of held.current) {
        x += DIRECTIONS[key][0];
        y += DIRECTIONS[key][1];
      }
      const signature = `${x} ${y} ${running}`;
      if (signature === sent.current) return;
      sent.current = signature;
      engine.setInput({ agent, x, y, gait: running ? runGait : null });
    },
    [engine, agent, runGait],
  );

  const release = useCallback(() => {
    held.current.clear();
    send(false);
  }, [send]);

  // Keys that are down before the run is there count from when it is.
  useEffect(() => {
    if (held.current.size > 0) send(false);
  }, [send]);
  useEffect(() => release, [release]);

  return {
    onKeyDown(event: KeyboardEvent) {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key in DIRECTIONS) {
        event.preventDefault();
        held.current.add(event.key);
      } else if (event.key !== 'Shift') return;
      send(event.shiftKey);
    },
    onKeyUp(event: KeyboardEvent) {
      held.current.delete(event.key);
      send(event.shiftKey);
    },
    onBlur: release,
  };
}
