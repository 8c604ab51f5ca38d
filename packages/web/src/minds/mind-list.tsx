import { namesOf } from '@crooked-lantern/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { FindingList } from '../findings/finding-list.tsx';
import { useProject } from '../state/store.ts';
import { useDrawing } from '../engine/use-engine.tsx';
import { counted } from '../ui/counted.ts';
import { ListColumn, ListItem } from '../ui/place.ts';
import { Explained } from '../ui/tooltip.tsx';
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
  > span:last-child {
    grid-column: 1 / -1;
    padding-left: 10px;
    font-family: var(--mono);
    color: var(--bone);
    min-height: 1.4em;
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

/** “11 states”, or what the mind is besides. */
function sizeOf(document: Parameters<typeof listStates>[0], mind: string): string {
  const { machine, activity } = document.minds[mind];
  if (machine) return counted(listStates(document, mind).length, 'state');
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
          <Key key={key}>
            <Explained text={memory[key].note}>
              <code>{key}</code>
            </Explained>
            {memory[key].type}
            <MemoryValue name={key} />
          </Key>
        ))}
      </ul>
      <h2>Findings</h2>
      <FindingList />
    </Column>
  );
}
