import { HIT_RESULTS, type FighterFigures, type HitResult } from '@crooked-lantern/core';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { RESULT_WORDS } from './fight-words.ts';

/** Results in the order of how good they are for who strikes. */
const TINTS: Record<HitResult, string> = {
  landed: 'var(--harm)',
  guarded: 'var(--done)',
  parried: 'var(--sight)',
  dodged: 'var(--told)',
  missed: 'var(--line2)',
  walled: 'var(--mute)',
};

/** What came of each move, a bar each. */
export default function FightChart({
  fighters,
  titleOf,
}: {
  fighters: readonly (readonly [string, FighterFigures])[];
  titleOf: (agent: string, move?: string) => string;
}) {
  const data = fighters.flatMap(([agent, { byMove }]) =>
    [...byMove]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([move, figures]) => ({
        name: `${titleOf(agent)}: ${titleOf(agent, move)}`,
        ...Object.fromEntries(HIT_RESULTS.map((result) => [result, figures[result]])),
      })),
  );
  const used = HIT_RESULTS.filter((result) => fighters.some(([, { all }]) => all[result] > 0));
  if (used.length === 0) return null;
  return (
    <div
      style={{ height: 60 + data.length * 22, marginTop: 16 }}
      role="img"
      aria-label={`What came of each move: ${used.map((result) => RESULT_WORDS[result].toLowerCase()).join(', ')}; the table above has the numbers`}
    >
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={data} layout="vertical" margin={{ top: 4, right: 16, bottom: 2, left: 8 }}>
          <CartesianGrid stroke="var(--line)" horizontal={false} />
          <XAxis
            type="number"
            allowDecimals={false}
            tick={{ fill: 'var(--mute)', fontSize: 11 }}
            stroke="var(--line2)"
          />
          <YAxis
            type="category"
            dataKey="name"
            width={170}
            interval={0}
            tick={{ fill: 'var(--bone)', fontSize: 12 }}
            stroke="var(--line2)"
          />
          <Legend
            verticalAlign="top"
            height={26}
            formatter={(text: string) => <span style={{ color: 'var(--bone)' }}>{text}</span>}
          />
          {used.map((result) => (
            <Bar
              key={result}
              name={RESULT_WORDS[result]}
              dataKey={result}
              stackId="results"
              fill={TINTS[result]}
              isAnimationActive={false}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
