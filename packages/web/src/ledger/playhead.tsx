import type { KeyboardEvent, ReactNode } from 'react';
import styled from 'styled-components';
import { useEngineValue } from '../engine/use-engine.tsx';
import { clockText } from '../ui/words/time.ts';

const Slider = styled.div`
  position: absolute;
  inset: 0;
  &:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -2px;
  }
`;

/** The playhead as a slider: arrows go by ticks, with Shift by seconds, up and down from mark to mark. */
export function Playhead({
  onKeyDown,
  onFocus,
  onBlur,
  words,
  children,
}: {
  onKeyDown: (event: KeyboardEvent) => void;
  onFocus: () => void;
  onBlur: () => void;
  /** What is shown of the place of the playhead, for readers. */
  words: string | null;
  children: ReactNode;
}) {
  // For readers a value a second is plenty; while it rests the tick is exact.
  const text = useEngineValue(({ frame, program }) => {
    if (!frame || !program) return '0';
    const tick = frame.playing
      ? Math.floor(frame.tick / program.ticksPerSecond) * program.ticksPerSecond
      : frame.tick;
    return `${tick} ${frame.keptFrom} ${frame.playing ? tick : frame.head} ${clockText(tick, program.ticksPerSecond, 1)}`;
  });
  const [now, least, most, clock] = text.split(' ');
  return (
    <Slider
      role="slider"
      tabIndex={0}
      aria-label="Playhead"
      aria-valuenow={Number(now)}
      aria-valuemin={Number(least ?? 0)}
      aria-valuemax={Number(most ?? 0)}
      aria-valuetext={words ?? clock}
      onKeyDown={onKeyDown}
      onFocus={onFocus}
      onBlur={onBlur}
    >
      {children}
    </Slider>
  );
}
