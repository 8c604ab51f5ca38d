import type { Finding } from '@crooked-lantern/core';
import { TriangleAlert } from 'lucide-react';
import { memo } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { perform } from '../state/perform.ts';
import { useAppDispatch, useProject } from '../state/store.ts';
import { addressOf } from './finding-address.ts';

const Item = styled.li`
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
  a {
    color: inherit;
    text-decoration-color: var(--line2);
    overflow-wrap: anywhere;
  }
  button {
    display: block;
    padding: 0;
    border: 0;
    background: none;
    color: var(--bone);
    text-align: left;
    text-decoration: underline;
    text-decoration-color: var(--line2);
  }
`;

/** One finding, with the way to where it is mended. */
const Entry = memo(function Entry({
  finding,
  to,
  onLeave,
}: {
  finding: Finding;
  to: string;
  onLeave?: () => void;
}) {
  const dispatch = useAppDispatch();
  const { remedy } = finding;
  return (
    <Item data-severity={finding.severity}>
      <strong>
        <TriangleAlert size={13} /> {finding.severity === 'error' ? 'Error' : 'Worth a look'}
      </strong>{' '}
      <Link to={to} onClick={onLeave}>
        {finding.message}
      </Link>
      {remedy && (
        <button type="button" onClick={() => dispatch(perform(remedy.command))}>
          {remedy.title}
        </button>
      )}
    </Item>
  );
});

/** What the checks have to say of the project; each finding leads to where it is mended. */
export function FindingList({ onLeave }: { onLeave?: () => void }) {
  const id = useProject((project) => project.id);
  const document = useProject((project) => project.document);
  const findings = useProject((project) => project.findings);
  const { search } = useLocation();
  return (
    <ul aria-label="Findings">
      {findings.length === 0 && <Item>None: everything has its place.</Item>}
      {findings.map((finding) => (
        <Entry
          key={`${finding.path} ${finding.message}`}
          finding={finding}
          to={addressOf(finding, document, id, search)}
          onLeave={onLeave}
        />
      ))}
    </ul>
  );
}
