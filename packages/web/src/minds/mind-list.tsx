import { namesOf } from '@crooked-lantern/core';
import type { Finding } from '@crooked-lantern/core';
import { TriangleAlert } from 'lucide-react';
import { useRef } from 'react';
import styled from 'styled-components';
import { useAppDispatch, useProject } from '../state/store.ts';
import { perform } from '../state/perform.ts';
import { useDrawing } from '../engine/use-engine.tsx';
import { ListColumn, ListItem } from '../ui/place.ts';
import { listStates } from './document-names.ts';
import { useAgentsWith, type Selection } from './use-selection.ts';

const Column = styled(ListColumn)`
  h2 {
    margin: 14px 8px 4px;
    font-weight: 600;
  }
  h2:first-child {
    margin-top: 2px;
  }
`;

const Key = styled.li`
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 2px 8px;
  color: var(--mute);
  code {
    font-family: var(--mono);
  }
  span {
    grid-column: 1 / -1;
    padding-left: 10px;
    font-family: var(--mono);
    color: var(--bone);
    min-height: 1.4em;
  }
`;

const FindingItem = styled.li`
  padding: 3px 8px;
  color: var(--mute);
  &[data-severity='error'] strong {
    color: var(--harm);
  }
  strong {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    color: var(--found);
    font-weight: 600;
  }
  button {
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    text-align: left;
    text-decoration: underline;
    text-decoration-color: var(--line2);
  }
`;

/** Values of the watched agent's memory, written straight to the page. */
function MemoryValue({ name }: { name: string }) {
  const box = useRef<HTMLSpanElement>(null);
  useDrawing(({ frame }) => {
    if (!box.current) return;
    const entry = frame?.readout?.memory.find(({ key }) => key === name);
    box.current.textContent = entry
      ? `${entry.value}${entry.age === null ? '' : ` · ${entry.age.toFixed(1)} s`}`
      : '';
  });
  return <span ref={box} aria-live="off" />;
}

/** Id of the state a finding is in, by its path. */
function stateOf(
  finding: Finding,
  document: Parameters<typeof listStates>[0],
  mind: string,
): string | null {
  if (!finding.path.startsWith(`minds.${mind}.machine.states`)) return null;
  const indices = [...finding.path.matchAll(/states\[(\d+)\]/g)].map((match) => Number(match[1]));
  let states = document.minds[mind].machine?.states ?? [];
  let id: string | null = null;
  for (const index of indices) {
    const state = states[index];
    if (!state) return id;
    id = state.id;
    states = state.states ?? [];
  }
  return id;
}

/** “11 states”, or what the mind is besides. */
function sizeOf(document: Parameters<typeof listStates>[0], mind: string): string {
  const { machine, activity } = document.minds[mind];
  if (machine) {
    const count = listStates(document, mind).length;
    return count === 1 ? '1 state' : `${count} states`;
  }
  if (activity && 'tree' in activity) return 'tree';
  return activity && 'rules' in activity ? 'rules' : 'action';
}

export function MindList({
  selection,
  select,
}: {
  selection: Selection;
  select: (change: Partial<Selection>) => void;
}) {
  const document = useProject((project) => project.document);
  const findings = useProject((project) => project.findings);
  const dispatch = useAppDispatch();
  const agents = useAgentsWith(selection.mind);
  const memory = document.minds[selection.mind]?.memory ?? {};
  const keys = namesOf(memory);
  return (
    <Column aria-label="Minds">
      <h2>Minds</h2>
      {namesOf(document.minds).map((name) => (
        <ListItem
          key={name}
          type="button"
          aria-current={name === selection.mind}
          onClick={() => select({ mind: name })}
        >
          {document.minds[name].title} <small>{sizeOf(document, name)}</small>
        </ListItem>
      ))}
      {agents.length > 0 && <h2>Shown live in</h2>}
      {agents.map((agent) => (
        <ListItem
          key={agent.name}
          type="button"
          aria-current={agent.name === selection.agent}
          onClick={() => select({ agent: agent.name })}
        >
          {agent.title}
        </ListItem>
      ))}
      {keys.length > 0 && <h2>Memory</h2>}
      <ul>
        {keys.map((key) => (
          <Key key={key} title={memory[key].note}>
            <code>{key}</code>
            {memory[key].type}
            <MemoryValue name={key} />
          </Key>
        ))}
      </ul>
      <h2>Findings</h2>
      <ul aria-label="Findings">
        {findings.length === 0 && <FindingItem>None: everything has its place.</FindingItem>}
        {findings.map((finding) => {
          const state = stateOf(finding, document, selection.mind);
          return (
            <FindingItem
              key={`${finding.path} ${finding.message}`}
              data-severity={finding.severity}
            >
              <strong>
                <TriangleAlert size={13} />{' '}
                {finding.severity === 'error' ? 'Error' : 'Worth a look'}
              </strong>{' '}
              {state === null ? (
                finding.message
              ) : (
                <button type="button" onClick={() => select({ state })}>
                  {finding.message}
                </button>
              )}
              {finding.remedy && (
                <button
                  type="button"
                  onClick={() => dispatch(perform(finding.remedy!.command))}
                  style={{ display: 'block', color: 'var(--bone)' }}
                >
                  {finding.remedy.title}
                </button>
              )}
            </FindingItem>
          );
        })}
      </ul>
    </Column>
  );
}
