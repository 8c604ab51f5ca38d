import type { ReactElement, ReactNode } from 'react';
import { Focusable, Tooltip as AriaTooltip, TooltipTrigger } from 'react-aria-components';
import styled from 'styled-components';

const Box = styled(AriaTooltip)`
  max-width: 36ch;
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

/** A tooltip on an element that takes the focus by itself. */
export function Tooltip({
  text,
  placement = 'right',
  children,
}: {
  text?: ReactNode;
  placement?: 'right' | 'bottom start';
  children: ReactElement;
}) {
  if (!text) return children;
  return (
    <TooltipTrigger delay={DELAY}>
      <Focusable>{children as never}</Focusable>
      <Box placement={placement} offset={6}>
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
