import { useEffect, useRef, type ReactNode } from 'react';
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-items: start center;
  padding-top: 12vh;
  background: rgb(5 9 10 / 55%);
`;

const Box = styled(Modal)<{ $wide: boolean }>`
  width: min(${({ $wide }) => ($wide ? '860px' : '560px')}, calc(100vw - 32px));
  border: 1px solid var(--line2);
  border-radius: 12px;
  background: var(--panel);
  box-shadow: 0 12px 48px rgb(0 0 0 / 45%);
`;

const Body = styled(AriaDialog)`
  padding: 18px 20px;
`;

const Title = styled(Heading)`
  margin: 0 0 10px;
  font: 600 1.25rem var(--title);
`;

/** A list, `$list` wide, beside what is chosen in it. */
export const DialogColumns = styled.div<{ $list: string }>`
  display: grid;
  grid-template-columns: ${({ $list }) => $list} minmax(0, 1fr);
  gap: 16px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** What the focus begins with, before anything that is only pressed. */
const FIELD = 'input, textarea';
const PRESSED = '[tabindex="0"]:not([role="group"]), button:not([disabled]), a[href]';

/** A dialog that gets the focus itself passes it on to its first useful part. */
function FirstPart() {
  const place = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const dialog = place.current?.closest('[role="dialog"]');
    const onFocus = ({ target }: FocusEvent) => {
      if (!dialog || target !== dialog) return;
      const find = (what: string) => dialog.querySelector<HTMLElement>(what);
      (find(FIELD) ?? find(PRESSED))?.focus();
    };
    window.addEventListener('focusin', onFocus);
    return () => window.removeEventListener('focusin', onFocus);
  }, []);
  return <span ref={place} hidden />;
}

export function Dialog({
  title,
  isOpen,
  onClose,
  wide = false,
  children,
}: {
  title: string;
  isOpen: boolean;
  onClose: () => void;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Overlay isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Box $wide={wide}>
        <Body>
          <Title slot="title">{title}</Title>
          <FirstPart />
          {children}
        </Body>
      </Box>
    </Overlay>
  );
}
