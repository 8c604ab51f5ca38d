import { useMemo, useRef } from 'react';
import { timeShares } from '../../engine/lane-times.ts';
import { useEngineValue } from '../../engine/use-engine.tsx';

/** States left within this many seconds are embers. */
const LATELY_SECONDS = 3;

/** The share of its time an agent has spent in each state, renewed once a second of the run and when it changes state. */
function useShares(agent: string | null, active: string): Map<string, number> {
  const known = useRef({ key: '', shares: new Map<string, number>() });
  return useEngineValue(({ frame, lanes, program }) => {
    const lane = agent === null ? undefined : lanes.byAgent.get(agent);
    const second = frame && program ? Math.floor(frame.tick / program.ticksPerSecond) : 0;
    const key = `${agent} ${active} ${second}`;
    if (known.current.key !== key)
      known.current = {
        key,
        shares: lane && frame ? timeShares(lane, frame.tick) : new Map<string, number>(),
      };
    return known.current.shares;
  });
}

/** Live facts as texts, so that the plan renders only when one of them changes. */
export function useLivePlan(agent: string | null): {
  active: Set<string>;
  lately: Set<string>;
  /** Of the active states those whose activity has ended, with a word for how. */
  ended: Map<string, string>;
  taken: string;
  shares: Map<string, number>;
} {
  const active = useEngineValue(({ frame }) => frame?.readout?.active.join(' ') ?? '');
  const taken = useEngineValue(({ frame }) => {
    const by = frame?.readout?.enteredBy;
    return by ? `${by.from} ${by.order}` : '';
  });
  const lately = useEngineValue(({ frame, lanes, program }) => {
    if (!frame || !program || agent === null) return '';
    const since = frame.tick - LATELY_SECONDS * program.ticksPerSecond;
    const bands = lanes.byAgent.get(agent)?.bands ?? [];
    return bands
      .filter(({ from, to }) => to >= since && to <= frame.tick && from < frame.tick)
      .map(({ state }) => state)
      .join(' ');
  });
  const ended = useEngineValue(({ frame }) =>
    (frame?.readout?.ended ?? [])
      .map(({ state, ending }) => `${state} ${ending === 'success' ? 'ended' : 'failed'}`)
      .join('\n'),
  );
  const shares = useShares(agent, active);
  return useMemo(
    () => ({
      active: new Set(active.split(' ')),
      lately: new Set(lately.split(' ')),
      ended: new Map(ended.split('\n').map((line) => line.split(' ') as [string, string])),
      taken,
      shares,
    }),
    [active, lately, ended, taken, shares],
  );
}
