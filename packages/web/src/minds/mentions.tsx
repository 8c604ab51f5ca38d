import {
  mentionsOf,
  pathText,
  wordsOfPath,
  type Mention,
  type MindPart,
} from '@crooked-lantern/core';
import { useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { addressOf } from '../findings/finding-address.ts';
import { useProject } from '../state/store.ts';
import { Jump } from '../ui/button.tsx';
import { useSettled } from '../ui/timing/use-settled.ts';

const List = styled.span`
  color: var(--mute);
  a {
    color: var(--bone);
    text-decoration-color: var(--line2);
  }
`;

/** Every place that refers to what a mind declares, each a way there. */
export function useMentions(mind: string, part: MindPart, name: string): Mention[] {
  // Who mentions it may be said a moment after an edit is shown.
  const document = useSettled(
    useProject((project) => project.document),
    `${mind} ${part} ${name}`,
  );
  return useMemo(() => mentionsOf(document, mind, part, name), [document, mind, part, name]);
}

/** Ways shown before the rest is asked for. */
const SHOWN = 4;

/** “written by …, read by …”. */
export function Mentions({ mentions, verb }: { mentions: readonly Mention[]; verb: string }) {
  const id = useProject((project) => project.id);
  const document = useProject((project) => project.document);
  const { search } = useLocation();
  const [all, setAll] = useState(false);
  if (mentions.length === 0) return <List>{verb} by nothing</List>;
  // Two mentions in one expression are one place.
  const places = [...new Map(mentions.map(({ path }) => [pathText(path), path]))];
  const shown = all ? places : places.slice(0, SHOWN);
  return (
    <List>
      {verb} by{' '}
      {shown.map(([text, path], i) => (
        <span key={text}>
          {i > 0 && ', '}
          <Link to={addressOf({ path: text }, document, id, search)}>
            {wordsOfPath(document, path.slice(0, -1)).replace(/ of [^ ]+$/, '')}
          </Link>
        </span>
      ))}
      {places.length > shown.length && (
        <>
          {', '}
          <Jump type="button" onClick={() => setAll(true)}>
            and {places.length - shown.length} more
          </Jump>
        </>
      )}
    </List>
  );
}
