import type { LedgerEntry } from '@crooked-lantern/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { onlyAgentTitles } from '../engine/entry-titles.ts';
import { entryWords } from '../engine/entry-words.ts';
import { clockText } from '../ui/words/time.ts';

const ROW = 22;

const Frame = styled.div`
  overflow: auto;
  border-top: 1px solid var(--line);
  > div {
    position: relative;
  }
  button {
    position: absolute;
    left: 0;
    display: grid;
    grid-template-columns: 80px 130px minmax(0, 1fr);
    gap: 8px;
    width: 100%;
    height: ${ROW}px;
    padding: 0 6px;
    border: 0;
    background: none;
    color: var(--bone);
    text-align: left;
    white-space: nowrap;
    &:focus-visible {
      outline-offset: -2px;
    }
    &[aria-current='true'] {
      background: var(--raised);
    }
    span {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    span:first-child {
      font-family: var(--mono);
    }
    span:nth-child(2) {
      color: var(--mute);
    }
  }
`;

/** The entries of a recording in words, filtered by agent and by words; the playhead's in sight. */
export function EntryList({
  entries,
  agents,
  perSecond,
  agent,
  words,
  tick,
  onGo,
}: {
  entries: readonly LedgerEntry[];
  agents: readonly { name: string; title: string }[];
  perSecond: number;
  agent: string;
  words: string;
  tick: number;
  onGo: (tick: number) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const titles = useMemo(() => new Map(agents.map(({ name, title }) => [name, title])), [agents]);
  const shown = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return entries.flatMap((entry) => {
      if (agent !== '' && entry.agent !== agent) return [];
      const said = entryWords(entry, onlyAgentTitles(titles));
      return wanted === '' || said.toLowerCase().includes(wanted) ? [{ entry, said }] : [];
    });
  }, [entries, agent, words, titles]);
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  const first = shown.findIndex(({ entry }) => entry.tick >= tick);
  useEffect(() => {
    if (first >= 0) rows.scrollToIndex(first, { align: 'auto' });
  }, [rows, first]);
  if (shown.length === 0) return <p>No entry is so.</p>;
  return (
    <Frame ref={frame} role="group" aria-label="Entries">
      <div style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const { entry, said } = shown[index];
          return (
            <button
              key={index}
              type="button"
              style={{ transform: `translateY(${start}px)` }}
              aria-current={entry.tick === tick}
              onClick={() => onGo(entry.tick)}
            >
              <span>{clockText(entry.tick, perSecond, 2)}</span>
              <span>{titles.get(entry.agent) ?? entry.agent}</span>
              <span>{said}</span>
            </button>
          );
        })}
      </div>
    </Frame>
  );
}
