import { useState } from 'react';
import styled from 'styled-components';
import type { Frame } from '../engine/protocol.ts';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { clockText } from '../ui/words/time.ts';

/** Whether the run is on its way to a moment, as fast as it goes. */
export function isGoingOn(frame: Frame | null): boolean {
  return frame !== null && frame.towards !== null;
}

const Track = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  i {
    display: block;
    width: 90px;
    height: 5px;
    border-radius: 3px;
    background: var(--raised);
    overflow: hidden;
  }
  i > i {
    width: 100%;
    background: var(--lamp);
    transform-origin: left;
  }
`;

/** How far a run has come on its way to a moment, as fast as it goes. */
export function GoingOn() {
  const engine = useEngine();
  const [from] = useState(engine.frame?.tick ?? 0);
  const program = useEngineValue((client) => client.program);
  const towards = useEngineValue(({ frame }) => frame?.towards ?? 0);
  const done = useEngineValue(({ frame }) =>
    Math.floor((100 * ((frame?.tick ?? from) - from)) / Math.max(1, towards - from)),
  );
  const goal = program ? clockText(towards, program.ticksPerSecond, 1) : '';
  return (
    <Track>
      <i
        role="progressbar"
        aria-label={`Running on to ${goal}`}
        aria-valuenow={done}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <i style={{ transform: `scaleX(${done / 100})` }} />
      </i>
      running on to {goal}, {done} % · P pauses
    </Track>
  );
}
