import {
  HIT_RESULTS,
  type FighterFigures,
  type FightFigures as Figures,
} from '@crooked-lantern/core';
import { Fragment, Suspense, useState } from 'react';
import styled from 'styled-components';
import { Choice } from '../../ui/fields/fields.tsx';
import { RESULT_WORDS } from './fight-words.ts';
import {
  useFights,
  useFightTitles,
  useFigures,
  useStretches,
  type FightStretch,
} from './use-fights.ts';
import { latePart } from '../../loading/late-part.tsx';

/** What fights came to, by agent and move: a table and a chart, of the whole run or of what ran under one edit. */

const FightChart = latePart('the chart', () =>
  import('./fight-chart.tsx').then((file) => file.default),
);

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  padding: 0 8px 8px;
  color: var(--mute);
  h2 {
    color: var(--bone);
    font: 600 1.35rem/1.2 var(--title);
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  thead th {
    position: sticky;
    top: -10px;
    background: var(--panel);
    color: var(--mute);
    font-weight: 600;
    text-align: right;
    vertical-align: bottom;
  }
  th,
  td {
    padding: 3px 5px;
    border-bottom: 1px solid var(--line);
    text-align: right;
    white-space: nowrap;
  }
  tbody th,
  thead th:first-child {
    text-align: left;
  }
  tr[data-agent] > * {
    border-top: 1px solid var(--line2);
    font-weight: 600;
  }
  tr[data-move] th {
    padding-left: 16px;
    font-weight: 400;
  }
  td[data-none='true'] {
    color: var(--mute);
  }
  small {
    display: block;
    color: var(--mute);
    font-weight: 400;
  }
`;

interface Column {
  id: string;
  title: string;
  about: string;
  of: (figures: Figures, fighter: FighterFigures, isWhole: boolean) => number | null;
}

const COLUMNS: readonly Column[] = [
  { id: 'uses', title: 'Uses', about: 'moves begun', of: ({ uses }) => uses },
  ...HIT_RESULTS.map((result): Column => ({
    id: result,
    title: RESULT_WORDS[result],
    about: `hits that were ${result}`,
    of: (figures) => figures[result],
  })),
  { id: 'broken', title: 'Broken', about: 'moves broken off', of: ({ broken }) => broken },
  {
    id: 'dealt',
    title: 'Dealt',
    about: 'points of health taken from others',
    of: ({ dealt }) => dealt,
  },
  {
    id: 'taken',
    title: 'Taken',
    about: 'points of health lost, from any source',
    of: (_, { taken }, isWhole) => (isWhole ? taken : null),
  },
];

/** One number, or how often a minute where two stretches of unlike length are compared. */
function figureText(value: number, minutes: number | null): string {
  if (minutes === null) return Number.isInteger(value) ? String(value) : value.toFixed(1);
  return minutes > 0 ? (value / minutes).toFixed(1) : '—';
}

function minutesOf({ from, to }: FightStretch, until: number, perSecond: number): number {
  return Math.max(0, Math.min(to, until) - from) / perSecond / 60;
}

interface Side {
  figures: Map<string, FighterFigures>;
  minutes: number;
}

function Cells({
  fighter,
  move,
  shown,
  compared,
  agent,
}: {
  fighter: FighterFigures;
  move: string | null;
  shown: Side;
  compared: Side | null;
  agent: string;
}) {
  const figures = move === null ? fighter.all : fighter.byMove.get(move)!;
  const before = compared?.figures.get(agent);
  const beforeFigures = move === null ? before?.all : before?.byMove.get(move);
  const share = (of: Figures, minutes: number, perSecond: number) =>
    minutes > 0 ? `${Math.round((of.ticks / (minutes * 60 * perSecond)) * 100)} %` : '—';
  const { perSecond } = useFights();
  return (
    <>
      {COLUMNS.map(({ id, of }) => {
        const value = of(figures, fighter, move === null);
        const was = before && beforeFigures ? of(beforeFigures, before, move === null) : null;
        return (
          <td key={id} data-none={!value}>
            {value === null ? '' : figureText(value, compared && shown.minutes)}
            {compared && value !== null && (
              <small>{was === null ? '—' : figureText(was, compared.minutes)}</small>
            )}
          </td>
        );
      })}
      <td data-none={figures.ticks === 0}>
        {share(figures, shown.minutes, perSecond)}
        {compared && (
          <small>{beforeFigures ? share(beforeFigures, compared.minutes, perSecond) : '—'}</small>
        )}
      </td>
    </>
  );
}

export function FightFigures() {
  const { entries, until, perSecond } = useFights();
  const stretches = useStretches(until, perSecond);
  const titleOf = useFightTitles();
  const [shownId, setShown] = useState('all');
  const [comparedId, setCompared] = useState('');
  const stretch = stretches.find(({ id }) => id === shownId) ?? stretches[0];
  const other = stretches.find(({ id }) => id === comparedId && id !== stretch.id);
  const figures = useFigures(entries, stretch);
  const otherFigures = useFigures(entries, other);
  const shown = { figures, minutes: minutesOf(stretch, until, perSecond) };
  const compared = other
    ? { figures: otherFigures, minutes: minutesOf(other, until, perSecond) }
    : null;
  const fighters = [...figures].filter(([, { all, taken }]) => all.uses > 0 || taken > 0);
  const title = (id: string) => stretches.find((each) => each.id === id)?.title ?? '';
  return (
    <>
      <Head>
        <h2>Figures of fights</h2>
        {stretches.length > 1 && (
          <>
            <span>
              of{' '}
              <Choice
                label="What the figures are of"
                value={stretch.id}
                options={stretches}
                onChoose={setShown}
              />
            </span>
            <span>
              compared with{' '}
              <Choice
                label="What the figures are compared with"
                value={other?.id ?? ''}
                options={[
                  { id: '', title: 'nothing' },
                  ...stretches.filter(({ id }) => id !== stretch.id),
                ]}
                onChoose={setCompared}
              />
            </span>
          </>
        )}
        {compared && <span>a minute, below it in grey that of “{title(other!.id)}”</span>}
      </Head>
      {fighters.length === 0 ? (
        <p style={{ padding: '0 8px' }}>
          No moves or lost health up to here. Run on, or choose another part of the run.
        </p>
      ) : (
        <>
          <Table>
            <thead>
              <tr>
                <th scope="col">Agent</th>
                {COLUMNS.map(({ id, title: text, about }) => (
                  <th key={id} scope="col" title={about}>
                    {text}
                  </th>
                ))}
                <th
                  scope="col"
                  title="share of the time from the beginnings of moves to their ends"
                >
                  Time at it
                </th>
              </tr>
            </thead>
            <tbody>
              {fighters.map(([agent, fighter]) => (
                <Fragment key={agent}>
                  <tr data-agent>
                    <th scope="row">{titleOf(agent)}</th>
                    <Cells {...{ fighter, agent, shown, compared }} move={null} />
                  </tr>
                  {[...fighter.byMove.keys()].sort().map((move) => (
                    <tr key={move} data-move>
                      <th scope="row">{titleOf(agent, move)}</th>
                      <Cells {...{ fighter, agent, shown, compared, move }} />
                    </tr>
                  ))}
                </Fragment>
              ))}
            </tbody>
          </Table>
          <Suspense fallback={<div aria-busy />}>
            <FightChart fighters={fighters} titleOf={titleOf} />
          </Suspense>
        </>
      )}
    </>
  );
}
