import {
  useEffect,
  useId,
  useRef,
  useState,
  type ReactElement,
  type ReactNode,
  type RefObject,
} from 'react';
import { Focusable, Popover, Tooltip as AriaTooltip, TooltipTrigger } from 'react-aria-components';
import styled, { css } from 'styled-components';

const look = css`
  padding: 3px 8px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--raised);
  color: var(--bone);
  /* It must never stand between a pointer and the next field. */
  pointer-events: none;
`;

const Box = styled(AriaTooltip)`
  ${look}
  max-width: 36ch;
`;

const Wide = styled(Popover)`
  ${look}
  max-width: min(60ch, 90vw);
`;

const Term = styled.span`
  border-radius: 4px;
`;

/** Milliseconds of hovering after which it shows; on keyboard focus it shows at once. */
const DELAY = 500;

/** A tooltip on an element that takes the focus by itself. */
export function Tooltip({ text, children }: { text?: string; children: ReactElement }) {
  if (!text) return children;
  return (
    <TooltipTrigger delay={DELAY}>
      <Focusable>{children as never}</Focusable>
      <Box placement="right" offset={6}>
        {text}
      </Box>
    </TooltipTrigger>
  );
}

/** Words with a tooltip, which the keyboard reaches too. */
export function Explained({ text, children }: { text?: string; children: ReactNode }) {
  if (!text) return <>{children}</>;
  return (
    <Tooltip text={text}>
      <Term tabIndex={0} role="note">
        {children}
      </Term>
    </Tooltip>
  );
}

/**
 * Something to be told of an element while it is looked at: hovered for a while, or focused. It may be more
 * than words, is made only then, and leaves every key to the element. Gives what the element takes, and what
 * is to be rendered beside it. `content` is null where there is nothing to tell.
 */
export function useLookedAt<E extends Element>(
  at: RefObject<E | null>,
  content: (() => ReactNode) | null,
) {
  const [isLookedAt, setLookedAt] = useState(false);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const id = useId();
  const leave = () => {
    clearTimeout(waiting.current);
    setLookedAt(false);
  };
  useEffect(() => () => clearTimeout(waiting.current), []);
  return {
    props: {
      'aria-describedby': isLookedAt ? id : undefined,
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
      <Wide isOpen isNonModal isKeyboardDismissDisabled triggerRef={at} placement="bottom start">
        <div role="tooltip" id={id}>
          {content()}
        </div>
      </Wide>
    ),
  };
}
