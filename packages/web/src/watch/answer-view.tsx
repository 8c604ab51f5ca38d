import type { Statement } from '@crooked-lantern/core';
import { Check, X } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { QuietButton } from '../ui/button.tsx';
import { clockText } from '../ui/words/time.ts';

const List = styled.ul`
  li {
    padding: 3px 0 3px 4px;
    overflow-wrap: anywhere;
  }
  ul {
    margin: 0;
    padding-left: 14px;
    border-left: 1px solid var(--line2);
    list-style: none;
  }
  > li > span {
    font-size: 1.1em;
    font-weight: 600;
  }
  small {
    color: var(--mute);
    font-size: 0.92em;
  }
  summary {
    padding-left: 19px;
    color: var(--mute);
  }
  svg {
    margin-right: 5px;
    vertical-align: -2px;
  }
  .holds {
    color: var(--done);
  }
  .fails {
    color: var(--refuse);
  }
  code {
    display: block;
    padding-left: 19px;
    color: var(--mute);
  }
  button {
    min-height: 24px;
    padding: 0 4px;
    color: var(--sight);
    font-weight: 400;
  }
  a {
    margin-left: 6px;
    color: var(--mute);
    font-size: 0.92em;
  }
`;

interface StatementViewProps {
  statement: Statement;
  /** The whole answer, not a part of it. */
  isWhole?: boolean;
  perSecond: number;
  agent: string;
  /** Leads to a tick. */
  onGo: (tick: number) => void;
}

function StatementView({ statement: said, isWhole = false, ...way }: StatementViewProps) {
  const { perSecond, agent, onGo } = way;
  const { statement, holds, values, since, nearest, cause, place, aside } = said;
  const id = useProject((project) => project.id);
  const at = (tick: number) => (
    <QuietButton aria-label={`To ${clockText(tick, perSecond, 2)}`} onPress={() => onGo(tick)}>
      {clockText(tick, perSecond, 2)}
    </QuietButton>
  );
  const causes = (
    <ul>
      {cause.map((each, i) => (
        <StatementView key={i} statement={each} {...way} />
      ))}
    </ul>
  );
  return (
    <li>
      <span className={holds ? 'holds' : 'fails'}>
        {holds ? (
          <Check size={14} aria-label="holds" />
        ) : (
          <X size={14} aria-label="does not hold" />
        )}
      </span>
      <span>
        {isWhole && !holds && 'Not so: '}
        {statement}
      </span>
      {since !== null && since > 0 && <small> since {at(since)}</small>}
      {place && (
        <Link
          to={`/projects/${id}/minds/${place.mind}?agent=${agent}&state=${place.state}`}
          aria-label={`Edit ${place.title} in Minds`}
        >
          edit
        </Link>
      )}
      {values.length > 0 && (
        <code>{values.map(({ part, value }) => `${part} = ${value}`).join(' · ')}</code>
      )}
      {nearest && (
        <code>
          nearest at {at(nearest.tick)}: {nearest.text}
        </code>
      )}
      {cause.length > 0 &&
        (aside ? (
          <details>
            <summary>{holds ? 'its rows' : 'what it needs'}</summary>
            {causes}
          </details>
        ) : (
          causes
        ))}
    </li>
  );
}

/** An answer with all it rests on: each part with its values, a way to its moment, and one to where it is written. */
export function AnswerView({
  answer,
  ...way
}: { answer: Statement } & Omit<StatementViewProps, 'statement' | 'isWhole'>) {
  return (
    <List aria-label="The answer">
      <StatementView statement={answer} isWhole {...way} />
    </List>
  );
}
