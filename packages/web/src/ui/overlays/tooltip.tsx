import { useEffect, useId, useRef, useState, type ReactNode, type RefObject } from 'react';
import { Popover } from 'react-aria-components';
import styled from 'styled-components';

const Box = styled(Popover)`
  max-width: min(60ch, 90vw);
  padding: 3px 8px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--raised);
  color: var(--bone);
  /* It must never stand between a pointer and the next field. */
  pointer-events: none;
`;

const Term = styled.span`
  border-radius: 4px;
`;

/** Milliseconds of hovering after which it shows; on keyboard focus it shows at once. */
const DELAY = 500;

/** Words with a tooltip, which the keyboard reaches too. */
export function Explained({ text, children }: { text?: string; children: ReactNode }) {
  const at = useRef<HTMLElement>(null);
  const { props, box } = useLookedAt(at, text ? () => text : null, 'right');
  if (!text) return <>{children}</>;
  return (
    <>
      <Term {...props} ref={at} tabIndex={0} role="note">
        {children}
      </Term>
      {box}
    </>
  );
}

/**
 * Something to be told of an element while it is looked at: hovered for a while, or focused. It may be more
 * than words, is made only then, and leaves every key to the element; Escape closes it besides. Returns what the
 * element takes, and what is to be rendered beside it. `content` is null where there is nothing to tell.
 */
export function useLookedAt<E extends Element>(
  at: RefObject<E | null>,
  content: (() => ReactNode) | null,
  placement: 'right' | 'bottom start' = 'bottom start',
) {
  const [isLookedAt, setLookedAt] = useState(false);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const id = useId();
  const leave = () => {
    clearTimeout(waiting.current);
    setLookedAt(false);
  };
  useEffect(() => () => clearTimeout(waiting.current), []);
  useEffect(() => {
    if (!isLookedAt) return undefined;
    const onKeyDown = ({ key }: KeyboardEvent) => {
      if (key === 'Escape') setLookedAt(false);
    };
    window.addEventListener('keydown', onKeyDown, true);
    return () => window.removeEventListener('keydown', onKeyDown, true);
  }, [isLookedAt]);
  return {
    props: {
      'aria-describedby': isLookedAt && content ? id : undefined,
      onPointerEnter: () => {
        clearTimeout(waiting.current);
        waiting.current = setTimeout(() => setLookedAt(true), DELAY);
      },
      onPointerLeave: leave,
      onFocus: ({ target }: { target: Element }) => {
        if (target.matches(':focus-visible')) setLookedAt(true);
      },
      onBlur: leave,
    },
    box: isLookedAt && content && (
      <Box isOpen isNonModal isKeyboardDismissDisabled triggerRef={at} placement={placement}>
        <div role="tooltip" id={id}>
          {content()}
        </div>
      </Box>
    ),
  };
}
