import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import styled from 'styled-components';
import { gridRings } from './polar.ts';
import {
  ceilingOf,
  secondsText,
  strokeOf,
  type NoticeCase,
  type NoticePoint,
} from './notice-curves.ts';

const Readout = styled.div`
  padding: 4px 8px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--raised);
  font-size: 0.95em;
`;

/** Seconds until noticed by distance, a line for each case; `pointed` marks the distance under the pointer elsewhere. */
export default function NoticeChart({
  points,
  cases,
  pointed,
}: {
  points: readonly NoticePoint[];
  cases: readonly NoticeCase[];
  pointed: number | null;
}) {
  const reach = points[points.length - 1]?.distance ?? 1;
  const ceiling = ceilingOf(points);
  return (
    <ResponsiveContainer width="100%" height="100%">
      <LineChart
        data={points as NoticePoint[]}
        margin={{ top: 6, right: 10, bottom: 2, left: -22 }}
        accessibilityLayer
      >
        <CartesianGrid stroke="var(--line)" vertical={false} />
        <XAxis
          type="number"
          dataKey="distance"
          domain={[0, reach]}
          ticks={[0, ...gridRings(reach)]}
          tick={{ fill: 'var(--mute)', fontSize: 11 }}
          stroke="var(--line2)"
          tickFormatter={(metres: number) => `${metres} m`}
        />
        <YAxis
          type="number"
          domain={[0, ceiling]}
          allowDataOverflow
          tick={{ fill: 'var(--mute)', fontSize: 11 }}
          stroke="var(--line2)"
          tickFormatter={(seconds: number) => `${seconds} s`}
        />
        <Tooltip
          isAnimationActive={false}
          cursor={{ stroke: 'var(--line2)' }}
          content={({ active, payload }) => {
            const point = payload?.[0]?.payload as NoticePoint | undefined;
            if (!active || !point) return null;
            return (
              <Readout>
                <strong>{point.distance.toFixed(1)} m</strong>
                {cases.map(({ id, title }) => (
                  <div key={id}>
                    {title}: {secondsText(point.seconds[id])}
                  </div>
                ))}
              </Readout>
            );
          }}
        />
        {pointed !== null && pointed <= reach && (
          <ReferenceLine x={pointed} stroke="var(--line2)" strokeDasharray="2 3" />
        )}
        {cases.map((each) => (
          <Line
            key={each.id}
            dataKey={({ seconds }: NoticePoint) => seconds[each.id]}
            name={each.title}
            type="monotone"
            dot={false}
            isAnimationActive={false}
            {...strokeOf(each)}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
