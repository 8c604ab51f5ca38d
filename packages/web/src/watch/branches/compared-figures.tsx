import type { AgentFigures } from '@crooked-lantern/core';
import { useState } from 'react';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import styled from 'styled-components';
import type { Comparison } from '../../engine/protocol.ts';
import { useEngineValue } from '../../engine/use-engine.tsx';
import { choicesOf, laneTitles } from '../../ledger/lane-titles.ts';
import { useProject } from '../../state/store.ts';
import { Choice } from '../../ui/fields/fields.tsx';
import { useTitleOf } from '../use-title-of.ts';

const Table = styled.table`
  width: 100%;
  margin-top: 14px;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  th,
  td {
    padding: 2px 6px;
    border-bottom: 1px solid var(--line);
    text-align: right;
    white-space: nowrap;
  }
  thead th {
    color: var(--mute);
    font-weight: 600;
    vertical-align: bottom;
    white-space: normal;
  }
  th:first-child {
    text-align: left;
  }
  tbody th {
    font-weight: 400;
  }
  small {
    display: block;
    color: var(--mute);
    font-size: 1em;
  }
  td[data-differs='true'] {
    background: var(--raised);
    font-weight: 600;
    small {
      color: var(--bone);
    }
  }
`;

interface Column {
  title: string;
  about: string;
  /** The text that is shown; texts that differ are marked. */
  of: (figures: AgentFigures, perSecond: number) => string;
}

function seconds(ticks: number, perSecond: number): string {
  return (ticks / perSecond).toFixed(1);
}

const COLUMNS: readonly Column[] = [
  {
    title: 'Transitions',
    about: 'transitions taken',
    of: ({ transitions }) => String(transitions),
  },
  {
    title: 'First notice, s',
    about: 'when it first noticed an agent',
    of: ({ firstNotice }, perSecond) =>
      firstNotice === null ? '—' : seconds(firstNotice, perSecond),
  },
  {
    title: 'Noticing, s',
    about: 'how long it was aware of an agent',
    of: ({ noticing }, perSecond) => seconds(noticing, perSecond),
  },
  {
    title: 'Walked, m',
    about: 'from where it was each second',
    of: ({ walked }) => walked.toFixed(1),
  },
  {
    title: 'Picks',
    about: 'options that were picked',
    of: ({ picks }) => String([...picks.values()].reduce((sum, count) => sum + count, 0)),
  },
  { title: 'Landed', about: 'moves that landed', of: ({ landed }) => String(landed) },
  {
    title: 'Dealt',
    about: 'points of health taken from others',
    of: ({ dealt }) => String(Math.round(dealt)),
  },
  { title: 'Lost', about: 'points of health lost', of: ({ taken }) => String(Math.round(taken)) },
];

function tick(fill: string) {
  return { fill, fontSize: 11 };
}

/** How long one agent was in each state, in both runs. */
function StateTimes({
  comparison,
  titles,
  agent,
}: {
  comparison: Comparison;
  titles: readonly [string, string];
  agent: string;
}) {
  const program = useEngineValue((client) => client.program);
  const minds = useProject((project) => project.document.minds);
  const perSecond = program?.ticksPerSecond ?? 60;
  const names = laneTitles(program, choicesOf(minds)).get(agent);
  const [here, there] = comparison.figures.map((figures) => figures.get(agent)?.states);
  const states = [...new Set([...(here?.keys() ?? []), ...(there?.keys() ?? [])])];
  if (states.length === 0) return <p>It has no states.</p>;
  const data = states.map((state) => ({
    name: names?.get(state) ?? state,
    here: Number(((here?.get(state) ?? 0) / perSecond).toFixed(2)),
    there: Number(((there?.get(state) ?? 0) / perSecond).toFixed(2)),
  }));
  const words = data.map(({ name, here: a, there: b }) => `${name} ${a} s and ${b} s`).join(', ');
  return (
    <div
      style={{ height: 56 + data.length * 32 }}
      role="img"
      aria-label={`Seconds in each state, ${titles[0]} and ${titles[1]}: ${words}`}
    >
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={data} layout="vertical" margin={{ top: 4, right: 16, bottom: 2, left: 8 }}>
          <CartesianGrid stroke="var(--line)" horizontal={false} />
          <XAxis type="number" unit=" s" tick={tick('var(--mute)')} stroke="var(--line2)" />
          <YAxis
            type="category"
            dataKey="name"
            width={110}
            interval={0}
            tick={tick('var(--bone)')}
            stroke="var(--line2)"
          />
          <Legend
            verticalAlign="top"
            height={24}
            formatter={(text: string) => <span style={{ color: 'var(--bone)' }}>{text}</span>}
          />
          <Bar name={titles[0]} dataKey="here" fill="var(--sight)" isAnimationActive={false} />
          <Bar name={titles[1]} dataKey="there" fill="var(--found)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}

/** Both runs in figures, agent by agent, up to where the shorter has come. */
export default function ComparedFigures({
  comparison,
  titles,
  agent,
}: {
  comparison: Comparison;
  titles: readonly [string, string];
  agent: string | null;
}) {
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const titleOf = useTitleOf();
  const [here, there] = comparison.figures;
  const names = [...new Set([...here.keys(), ...there.keys()])];
  const [chosen, setChosen] = useState(comparison.decision?.agent ?? agent ?? names[0]);
  // Columns in which no agent has done anything say nothing.
  const idle = new Set(['0', '—', '0.0']);
  const columns = COLUMNS.filter(({ of }) =>
    comparison.figures.some((figures) =>
      [...figures.values()].some((each) => !idle.has(of(each, perSecond))),
    ),
  );
  return (
    <>
      <Table>
        <caption style={{ textAlign: 'left', color: 'var(--mute)' }}>
          {titles[0]} above, {titles[1]} below; what differs is marked
        </caption>
        <thead>
          <tr>
            <th scope="col">Who</th>
            {columns.map(({ title, about }) => (
              <th key={title} scope="col" title={about}>
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.map((name) => (
            <tr key={name}>
              <th scope="row">{titleOf(name)}</th>
              {columns.map(({ title, of }) => {
                const [a, b] = [here.get(name), there.get(name)].map((figures) =>
                  figures ? of(figures, perSecond) : '—',
                );
                return (
                  <td key={title} data-differs={a !== b}>
                    {a}
                    <small>{b}</small>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Table>
      <h3>
        Time in each state of{' '}
        <Choice
          label="Whose states"
          value={chosen}
          options={names.map((id) => ({ id, title: titleOf(id) }))}
          onChoose={setChosen}
        />
      </h3>
      <StateTimes comparison={comparison} titles={titles} agent={chosen} />
    </>
  );
}
