import { EVENT_PATTERN, eventsFor } from '@crooked-lantern/core';
import { useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../../state/store.ts';
import { ChooseFrom } from '../../ui/fields/choose-from.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';

const Shown = styled.button`
  padding: 0 3px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: none;
  color: inherit;
  font-family: var(--mono);
  cursor: text;
  &:hover {
    border-color: var(--line2);
  }
`;

const OTHER = '+other';

/** The event a transition waits for: one of those that anything raises, with who raises it, or another. */
export function EventField({
  mind,
  label,
  value,
  onCommit,
}: {
  mind: string;
  label: string;
  value: string;
  onCommit: (event: string) => void;
}) {
  const document = useProject((project) => project.document);
  const button = useRef<HTMLButtonElement>(null);
  const [state, setState] = useState<'shown' | 'choosing' | 'writing'>('shown');
  const choices = useMemo(
    () =>
      state === 'choosing'
        ? [
            ...eventsFor(document, mind).map(({ event, about }) => ({
              id: event,
              name: event,
              about,
            })),
            { id: OTHER, name: 'Another …', about: 'an event that nothing raises yet' },
          ]
        : [],
    [document, mind, state],
  );
  const end = () => {
    setState('shown');
    button.current?.focus();
  };
  if (state === 'writing')
    return (
      <InlineText
        mono
        label={label}
        value={value}
        check={(text) =>
          EVENT_PATTERN.test(text) ? null : 'An event name such as done or sight.certain.'
        }
        startsOpen
        onCommit={onCommit}
        onEnd={end}
      />
    );
  return (
    <>
      <Shown
        ref={button}
        type="button"
        aria-label={`${label}: ${value}. Choose`}
        aria-haspopup="true"
        onClick={() => setState('choosing')}
      >
        {value}
      </Shown>
      {state === 'choosing' && (
        <ChooseFrom
          label={label}
          at={button}
          choices={choices}
          onChoose={(event) => {
            if (event === OTHER) return setState('writing');
            end();
            onCommit(event);
          }}
          onClose={end}
        />
      )}
    </>
  );
}
