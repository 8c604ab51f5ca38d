import { agentNamed, titleOfKey } from '@crooked-lantern/core';
import { useMemo, useRef } from 'react';
import styled from 'styled-components';
import { useDrawing, useEngineValue } from '../engine/use-engine.tsx';
import { memoryText } from '../minds/memory/memory-text.ts';
import { useProject } from '../state/store.ts';
import { Sheet } from '../minds/sheet-layout.ts';
import { writeText } from '../ui/timing/write-live.ts';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-family: var(--mono);
  th {
    width: 40%;
    padding: 3px 8px 3px 4px;
    color: var(--mute);
    font-weight: 400;
    text-align: left;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  td {
    padding: 3px 4px;
    overflow-wrap: anywhere;
  }
  tr {
    border-bottom: 1px solid var(--line);
  }
  small {
    color: var(--mute);
    font-family: var(--text);
    font-size: 0.92em;
  }
`;

/** What the followed agent's mind holds at the tick that is shown, key by key. */
export function MemoryNow({ agent }: { agent: string | null }) {
  const document = useProject((project) => project.document);
  const minds = useMemo(
    () => (agent === null ? [] : (agentNamed(document, agent)?.minds ?? [])),
    [document, agent],
  );
  const rows = useRef<HTMLTableSectionElement>(null);
  // The keys change only with an edit or another agent; their values change in every tick.
  const keys = useEngineValue(({ frame }) =>
    (frame?.readout?.memory ?? []).map(({ key, scope }) => `${key} ${scope}`).join('\n'),
  );
  useDrawing(({ frame }) => {
    frame?.readout?.memory.forEach((entry, i) =>
      writeText(rows.current?.rows[i]?.cells[1] ?? null, memoryText(entry)),
    );
  });
  return (
    <Sheet aria-label="Memory at this tick">
      {keys === '' ? (
        <p>This mind has no memory.</p>
      ) : (
        <Table>
          <tbody ref={rows}>
            {keys.split('\n').map((line) => {
              const [key, scope] = line.split(' ');
              return (
                <tr key={line}>
                  <th scope="row">
                    {titleOfKey(document, minds, key)}{' '}
                    {scope !== 'self' && <small>of the {scope}</small>}
                  </th>
                  <td />
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
    </Sheet>
  );
}
