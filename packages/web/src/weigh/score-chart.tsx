import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { ChoicePast } from '../engine/protocol.ts';
import { useEngineValue } from '../engine/use-engine.tsx';
import { tintOf } from './words.ts';

/** Points of a line at most: more can’t be told apart. */
const MOST_POINTS = 150;

/** Scores of all options in the last seconds, a line each. */
export default function ScoreChart({
  past: { tick, options, scores, running },
  titles,
}: {
  past: ChoicePast;
  titles: readonly string[];
}) {
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const every = Math.max(1, Math.ceil(running.length / MOST_POINTS));
  const data: Record<string, number | null>[] = [];
  for (let i = running.length - 1; i >= 0; i -= every) {
    const point: Record<string, number | null> = {
      seconds: (tick - (running.length - 1 - i)) / perSecond,
    };
    options.forEach((_, place) => {
      const score = scores[i * options.length + place];
      point[place] = score === score ? score : null;
    });
    data.unshift(point);
  }
  return (
    <div style={{ height: 150 }} role="img" aria-label={`Scores over time of ${titles.join(', ')}`}>
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={data} margin={{ top: 6, right: 10, bottom: 2, left: -22 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            type="number"
            dataKey="seconds"
            domain={['dataMin', 'dataMax']}
            tick={{ fill: 'var(--mute)', fontSize: 11 }}
            stroke="var(--line2)"
            tickFormatter={(seconds: number) => `${seconds.toFixed(1)} s`}
            tickCount={5}
          />
          <YAxis
            type="number"
            domain={[0, 'auto']}
            tick={{ fill: 'var(--mute)', fontSize: 11 }}
            stroke="var(--line2)"
          />
          {options.map((id, place) => (
            <Line
              key={id}
              name={titles[place]}
              dataKey={String(place)}
              stroke={tintOf(place)}
              strokeWidth={1.5}
              dot={false}
              isAnimationActive={false}
              connectNulls={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
