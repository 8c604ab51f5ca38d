import { agentNamed, titleOfKey } from '@crooked-lantern/core';
import { X } from 'lucide-react';
import { useEffect, useMemo, useRef } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useDrawing, useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { PartTitle, Sheet } from '../../minds/sheet-layout.ts';
import { useAsk } from '../../shell/use-ask.ts';
import { useProject } from '../../state/store.ts';
import { Jump, QuietButton } from '../../ui/button.tsx';
import { Choice, type Option } from '../../ui/fields/fields.tsx';
import { writeText } from '../../ui/timing/write-live.ts';
import { followRows, type FollowRow } from './follow-rows.ts';

/** So many can be followed side by side. */
const MOST = 4;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
`;

const Table = styled.table`
  width: 100%;
  margin-top: 8px;
  border-collapse: collapse;
  table-layout: fixed;
  font-variant-numeric: tabular-nums;
  th,
  td {
    padding: 3px 6px;
    border-bottom: 1px solid var(--line);
    text-align: left;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  thead th {
    font-weight: 600;
  }
  thead th:first-child {
    width: 96px;
  }
  tbody th {
    color: var(--mute);
    font-weight: 400;
  }
  tbody th[scope='rowgroup'] {
    padding-top: 10px;
    color: var(--bone);
    font-weight: 600;
  }
  td[data-wrong='true'] {
    color: var(--refuse);
  }
`;

/** The followed agents: those in the address, else the watched one. */
function useFollowed(agent: string | null, thinkers: readonly Option[]) {
  const [search, setSearch] = useSearchParams();
  const text = search.get('follow') ?? agent ?? '';
  const names = useMemo(
    () =>
      text
        .split(',')
        .filter((name) => thinkers.some(({ id }) => id === name))
        .slice(0, MOST),
    [text, thinkers],
  );
  const follow = (next: readonly string[]) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before);
        after.set('follow', next.join(','));
        return after;
      },
      { replace: true },
    );
  return { names, follow };
}

/** Up to four agents side by side: what they do, what they know, and how far that is from what is true. */
export function FollowView({
  agent,
  thinkers,
}: {
  agent: string | null;
  thinkers: readonly Option[];
}) {
  const engine = useEngine();
  const ask = useAsk();
  const document = useProject((project) => project.document);
  const { names, follow } = useFollowed(agent, thinkers);
  const body = useRef<HTMLTableElement>(null);
  useEffect(() => {
    engine.follow(names);
    return () => engine.follow([]);
  }, [engine, names]);
  // Which rows there are changes seldom; what they say, with each frame.
  const shape = useEngineValue(({ frame }) =>
    JSON.stringify(
      followRows(frame?.followed ?? []).map(({ id, title, group, asks }) => ({
        id,
        title,
        group,
        asks,
      })),
    ),
  );
  const rows = useMemo(
    () => JSON.parse(shape) as Pick<FollowRow, 'id' | 'title' | 'group' | 'asks'>[],
    [shape],
  );
  useDrawing(({ frame }) => {
    const readouts = frame?.followed ?? [];
    const cells = new Map(
      [...(body.current?.querySelectorAll<HTMLTableCellElement>('td[data-cell]') ?? [])].map(
        (cell) => [cell.dataset.cell!, cell],
      ),
    );
    for (const { id, of } of followRows(readouts))
      for (const readout of readouts) {
        const cell = cells.get(`${readout.agent} ${id}`);
        if (!cell) continue;
        const said = of(readout);
        writeText(cell, said?.text ?? '');
        const isWrong = said?.isWrong === true ? 'true' : 'false';
        if (cell.dataset.wrong !== isWrong) cell.dataset.wrong = isWrong;
      }
  });
  const minds = useMemo(() => agentNamed(document, names[0])?.minds ?? [], [document, names]);
  const titleOf = (name: string) => thinkers.find(({ id }) => id === name)?.title ?? name;
  const others = thinkers.filter(({ id }) => !names.includes(id));
  const groups = [...new Set(rows.map(({ group }) => group))];
  return (
    <Sheet aria-label="Followed agents">
      <Head>
        <PartTitle>Follow</PartTitle>
        {names.length < MOST && others.length > 0 && (
          <Choice
            label="Follow another too"
            value=""
            options={[{ id: '', title: 'another too …' }, ...others]}
            onChoose={(id) => id !== '' && follow([...names, id])}
          />
        )}
      </Head>
      {names.length === 0 ? (
        <p>Choose an agent to follow.</p>
      ) : (
        <Table ref={body}>
          <thead>
            <tr>
              <th scope="col" aria-label="What" />
              {names.map((name) => (
                <th key={name} scope="col">
                  {titleOf(name)}
                  {names.length > 1 && (
                    <QuietButton
                      aria-label={`Follow ${titleOf(name)} no longer`}
                      style={{ minHeight: 18 }}
                      onPress={() => follow(names.filter((each) => each !== name))}
                    >
                      <X size={12} />
                    </QuietButton>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          {groups.map((group) => (
            <tbody key={group}>
              {group !== '' && (
                <tr>
                  <th scope="rowgroup" colSpan={names.length + 1}>
                    {group}
                  </th>
                </tr>
              )}
              {rows
                .filter((row) => row.group === group)
                .map(({ id, asks, title: usual }) => {
                  const title =
                    asks?.ask === 'memory' ? titleOfKey(document, minds, asks.key) : usual;
                  return (
                    <tr key={id}>
                      <th scope="row">
                        {asks === undefined ? (
                          title
                        ) : (
                          <Jump
                            type="button"
                            title={`Ask about it, of ${titleOf(names[0])}`}
                            onClick={() => ask({ agent: names[0], asking: asks })}
                          >
                            {title}
                          </Jump>
                        )}
                      </th>
                      {names.map((name) => (
                        <td key={name} data-cell={`${name} ${id}`} />
                      ))}
                    </tr>
                  );
                })}
            </tbody>
          ))}
        </Table>
      )}
    </Sheet>
  );
}
