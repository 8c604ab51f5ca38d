import { ChevronRight } from 'lucide-react';
import type { ReactElement, ReactNode, RefObject } from 'react';
import {
  Menu as AriaMenu,
  MenuItem as AriaMenuItem,
  MenuTrigger,
  Popover,
  SubmenuTrigger,
} from 'react-aria-components';
import styled, { css } from 'styled-components';

export const Surface = styled(Popover)`
  min-width: 150px;
  padding: 4px;
  border: 1px solid var(--line2);
  border-radius: 8px;
  background: var(--panel);
  box-shadow: 0 6px 24px rgb(0 0 0 / 35%);
`;

/** How lists look that open over the page, and their entries. */
export const openedList = css`
  max-height: 320px;
  overflow: auto;
`;
export const openedEntry = css`
  padding: 0.3em 0.7em;
  border-radius: 5px;
  cursor: default;
  outline: none;
  &[data-focused] {
    background: var(--raised);
  }
`;

const List = styled(AriaMenu)`
  ${openedList}
`;

const Entry = styled(AriaMenuItem)`
  ${openedEntry}
  display: flex;
  justify-content: space-between;
  gap: 2em;
  &[data-disabled] {
    color: var(--dim);
  }
  small {
    color: var(--mute);
  }
`;

export interface MenuEntry {
  id: string;
  label: ReactNode;
  /** Plain text for typing ahead and for readers. */
  text: string;
  onAction?: () => void;
  /** A menu of its own, in place of an action. */
  entries?: MenuEntry[];
}

function entryOf({ id, text, label, onAction, entries }: MenuEntry): ReactElement {
  if (!entries)
    return (
      <Entry key={id} id={id} textValue={text} onAction={onAction}>
        {label}
      </Entry>
    );
  return (
    <SubmenuTrigger key={id}>
      <Entry id={id} textValue={text}>
        {label} <ChevronRight size={14} aria-hidden />
      </Entry>
      <Surface>
        <List aria-label={text}>{entries.map(entryOf)}</List>
      </Surface>
    </SubmenuTrigger>
  );
}

/** A button (given as `children`) that opens a list of commands. */
export function Menu({
  label,
  entries,
  children,
}: {
  label: string;
  entries: MenuEntry[];
  children: ReactNode;
}) {
  return (
    <MenuTrigger>
      {children}
      <Surface placement="bottom start">
        <List aria-label={label}>{entries.map(entryOf)}</List>
      </Surface>
    </MenuTrigger>
  );
}

/** The same without a button of its own: open while it is there, under an element that many may share it with. */
export function MenuAt({
  at,
  label,
  entries,
  onClose,
}: {
  at: RefObject<Element | null>;
  label: string;
  entries: MenuEntry[];
  onClose: () => void;
}) {
  return (
    <Surface
      isOpen
      triggerRef={at}
      placement="bottom end"
      aria-label={label}
      onOpenChange={(open) => !open && onClose()}
    >
      <List autoFocus="first" aria-label={label} onClose={onClose}>
        {entries.map(entryOf)}
      </List>
    </Surface>
  );
}
