import type { StateDocument } from '@crooked-lantern/core';
import styled from 'styled-components';
import { titleOf, wholeReason } from '../document-names.ts';
import { signsOf } from './signs.ts';

const Box = styled.div`
  position: absolute;
  left: 8px;
  bottom: 6px;
  max-width: calc(100% - 190px);
  max-height: 60%;
  overflow: hidden;
  padding: 3px 10px 5px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: color-mix(in srgb, var(--panel) 94%, transparent);
  color: var(--mute);
  font-size: 12px;
  pointer-events: none;
  ol {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  b {
    color: var(--bone);
    font-weight: 600;
  }
`;

/** The transitions of the state that is pointed at or has the focus, whole: labels of the plan are cut. */
export function Leaving({
  id,
  state,
  titles,
}: {
  id: string;
  state: StateDocument;
  titles: ReadonlyMap<string, string>;
}) {
  const transitions = state.transitions ?? [];
  if (transitions.length === 0) return null;
  return (
    <Box id={id}>
      {titleOf(state)} leaves when
      <ol>
        {transitions.map((leave, i) => (
          <li key={i}>
            {i + 1}
            {signsOf(leave)} {wholeReason(leave)} →{' '}
            <b>{leave.to === undefined ? 'stays' : (titles.get(leave.to) ?? leave.to)}</b>
          </li>
        ))}
      </ol>
    </Box>
  );
}
