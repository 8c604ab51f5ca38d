import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { useLookedAt } from '../overlays/tooltip.tsx';

const Shown = styled.button<{ $mono: boolean; $faulty: boolean }>`
  max-width: 100%;
  min-width: 24px;
  min-height: 24px;
  padding: 0 3px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: none;
  color: inherit;
  font-family: ${({ $mono }) => ($mono ? 'var(--mono)' : 'inherit')};
  font-weight: inherit;
  text-align: left;
  text-decoration: ${({ $faulty }) => ($faulty ? 'underline wavy var(--harm)' : 'none')};
  overflow-wrap: break-word;
  cursor: text;
  &:hover {
    border-color: var(--line2);
  }
`;

const Field = styled.input<{ $mono: boolean }>`
  width: 100%;
  min-width: 5ch;
  padding: 0 4px;
  border: 1px solid var(--sight);
  border-radius: 5px;
  background: var(--night);
  font-family: ${({ $mono }) => ($mono ? 'var(--mono)' : 'inherit')};
`;

const Missing = styled.span`
  color: var(--mute);
`;

const Problem = styled.span`
  display: block;
  color: var(--harm);
`;

export interface InlineTextProps {
  /** What is edited, for readers: “title of Chase”. */
  label: string;
  value: string;
  /** What it is, in a few words. */
  about?: string;
  /** Shown in place of the value while it is not edited. */
  shown?: string;
  /** Shown in place of an empty value. */
  placeholder?: string;
  mono?: boolean;
  faulty?: boolean;
  /** A message where the value can't be taken; it then stays open. */
  check?: (value: string) => string | null;
  onCommit: (value: string) => void;
  /** It is open as soon as it is there. */
  startsOpen?: boolean;
  /** It has been closed, whether anything was kept or not. */
  onEnd?: () => void;
}

/** Text that is edited where it stands: Enter or leaving keeps it, Escape gives it up. */
export function InlineText({
  label,
  value,
  shown: dressed,
  placeholder = '—',
  mono = false,
  faulty = false,
  about,
  check,
  onCommit,
  startsOpen = false,
  onEnd,
}: InlineTextProps) {
  const [draft, setDraft] = useState<string | null>(startsOpen ? value : null);
  const shown = useRef<HTMLButtonElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const returnFocus = useRef(false);
  const looked = useLookedAt(shown, about === undefined ? null : () => about, 'right');
  const editing = draft !== null;
  useEffect(() => {
    if (editing) field.current?.select();
    else if (returnFocus.current) {
      returnFocus.current = false;
      shown.current?.focus();
    }
  }, [editing]);

  if (draft === null) {
    return (
      <>
        <Shown
          ref={shown}
          type="button"
          $mono={mono}
          $faulty={faulty}
          aria-label={`${label}: ${value || 'empty'}. Edit`}
          onClick={() => setDraft(value)}
          {...looked.props}
        >
          {dressed ?? (value || <Missing>{placeholder}</Missing>)}
        </Shown>
        {looked.box}
      </>
    );
  }
  const problem = check?.(draft) ?? null;
  const commit = (byKey: boolean) => {
    if (problem !== null) {
      if (!byKey) {
        setDraft(null);
        onEnd?.();
      }
      return;
    }
    returnFocus.current = byKey;
    setDraft(null);
    if (draft !== value) onCommit(draft);
    onEnd?.();
  };
  return (
    <span>
      <Field
        ref={field}
        $mono={mono}
        aria-label={label}
        aria-invalid={problem !== null}
        value={draft}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => commit(false)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            // Else the same key press would open the field again, once the focus is back on the button.
            event.preventDefault();
            commit(true);
          }
          if (event.key === 'Escape') {
            event.stopPropagation();
            returnFocus.current = true;
            setDraft(null);
            onEnd?.();
          }
        }}
      />
      {problem !== null && <Problem role="alert">{problem}</Problem>}
    </span>
  );
}
