import type { NodeDocument } from '@crooked-lantern/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useCommands } from '../shell/commands.tsx';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { referenceShown } from '../state/view-slice.ts';
import { Dialog, DialogColumns } from '../ui/overlays/dialog.tsx';
import { ListItem } from '../ui/place.ts';
import { ExampleRun } from './example-run.tsx';
import {
  findInReference,
  REFERENCE,
  referenceOf,
  type ReferenceEntry,
} from './reference-entries.ts';

const Columns = styled(DialogColumns)`
  height: min(56vh, 520px);
  input {
    width: 100%;
    padding: 4px 8px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
  }
  @media (max-width: 700px) {
    height: auto;
  }
`;

const List = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
  > div {
    flex: 1;
    margin-top: 6px;
    overflow: auto;
    scrollbar-gutter: stable;
  }
`;

const Page = styled.article`
  min-width: 0;
  overflow: auto;
  scrollbar-gutter: stable;
  h3 {
    font: 600 1.2rem var(--title);
  }
  dl {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 4px 14px;
  }
  dt {
    color: var(--mute);
    font-family: var(--mono);
  }
  dd {
    margin: 0;
  }
  pre {
    padding: 8px 10px;
    overflow: auto;
    border-radius: 6px;
    background: var(--night);
    font-family: var(--mono);
  }
`;

const KINDS: Record<ReferenceEntry['kind'], string> = {
  action: 'action',
  node: 'node of trees',
  expression: 'in expressions',
  sense: 'sense',
  finding: 'finding',
  term: 'term',
};

function EntryPage({ entry }: { entry: ReferenceEntry }) {
  return (
    <Page aria-label={entry.title} tabIndex={0}>
      <h3>{entry.title}</h3>
      <p>
        <small>{KINDS[entry.kind]}</small>
      </p>
      <p>{entry.about}</p>
      <dl>
        {entry.facts.map(([name, text]) => [
          <dt key={name}>{name}</dt>,
          <dd key={`${name} text`}>{text}</dd>,
        ])}
      </dl>
      {entry.example !== undefined && (
        <>
          <p>In the file:</p>
          <pre>{JSON.stringify(entry.example, null, 2)}</pre>
          <ExampleRun key={entry.id} node={entry.example as NodeDocument} />
        </>
      )}
    </Page>
  );
}

/** Every node, action, built-in, sense and finding with its page: F1 opens the one of what has the focus. */
export function ReferenceDialog() {
  const dispatch = useAppDispatch();
  const shown = useAppSelector(({ view }) => view.reference);
  const [words, setWords] = useState('');
  useCommands(
    useMemo(
      () =>
        REFERENCE.map(({ id, title, kind, aliases }) => ({
          id: `reference ${id}`,
          name: `Reference: ${title} (${KINDS[kind]})`,
          aliases,
          run: () => dispatch(referenceShown(id)),
        })),
      [dispatch],
    ),
    'reference',
  );
  if (shown === null) return null;
  const entries = findInReference(words);
  const entry = referenceOf(shown) ?? entries[0];
  return (
    <Dialog
      title="Reference"
      isOpen
      wide
      onClose={() => {
        setWords('');
        dispatch(referenceShown(null));
      }}
    >
      <Columns $list="230px">
        <List>
          <input
            type="search"
            aria-label="Find in the reference"
            placeholder="Type part of a name"
            autoFocus
            value={words}
            onChange={(event) => {
              setWords(event.target.value);
              dispatch(referenceShown(findInReference(event.target.value)[0]?.id ?? ''));
            }}
          />
          <div>
            {entries.map(({ id, title, kind }) => (
              <ListItem
                key={id}
                type="button"
                aria-current={id === entry?.id}
                onClick={() => dispatch(referenceShown(id))}
              >
                {title} <small>{kind}</small>
              </ListItem>
            ))}
            {entries.length === 0 && <p>Nothing has that in its name.</p>}
          </div>
        </List>
        {entry && <EntryPage entry={entry} />}
      </Columns>
    </Dialog>
  );
}
