import { differenceOf, type Difference, type ProjectDocument } from '@crooked-lantern/core';
import { useMemo } from 'react';
import styled from 'styled-components';

const List = styled.ul`
  li {
    display: grid;
    grid-template-columns: 70px minmax(0, 1fr);
    gap: 8px;
    padding: 2px 0;
    border-bottom: 1px solid var(--line);
  }
  li > span:first-child {
    color: var(--mute);
  }
  [data-how='added'] > span:first-child {
    color: var(--done);
  }
  [data-how='removed'] > span:first-child {
    color: var(--refuse);
  }
  del {
    color: var(--mute);
  }
  code {
    font-family: var(--mono);
    overflow-wrap: anywhere;
  }
`;

const WORDS: Record<Difference['how'], string> = {
  added: '+ added',
  removed: '− removed',
  changed: 'changed',
  moved: '↕ moved',
};

/** What has changed from one document to another, part by part, in words. */
export function DifferenceList({
  before,
  after,
  none,
}: {
  before: ProjectDocument;
  after: ProjectDocument;
  /** Said where they are the same. */
  none: string;
}) {
  const differences = useMemo(() => differenceOf(before, after), [before, after]);
  return <DifferenceRows differences={differences} none={none} />;
}

export function DifferenceRows({
  differences,
  none,
}: {
  differences: readonly Difference[];
  /** Said where there is none. */
  none: string;
}) {
  if (differences.length === 0) return <p>{none}</p>;
  return (
    <List aria-label="Differences">
      {differences.map(({ path, what, how, from, to }) => (
        <li key={`${how} ${path.join('.')}`} data-how={how}>
          <span>{WORDS[how]}</span>
          <span>
            {what}
            {how === 'changed' && (
              <>
                : <del>{from}</del> → <code>{to}</code>
              </>
            )}
          </span>
        </li>
      ))}
    </List>
  );
}
