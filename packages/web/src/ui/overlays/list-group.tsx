import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { QuietButton } from '../button.tsx';
import { Menu, type MenuEntry } from './menu.tsx';
import { ListHead } from '../place.ts';

/** A name in a list, with a glyph before it. */
export const ListName = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  svg {
    flex: none;
  }
`;

/** A group of entries in the list of a place, with what adds one. */
export function ListGroup({
  title,
  add,
  children,
}: {
  title: string;
  /** What is added, and how; several ways open a menu. */
  add?: { what: string; run: (() => void) | MenuEntry[] };
  children: ReactNode;
}) {
  const ways = add && Array.isArray(add.run) ? add.run : null;
  const button = add && (
    <QuietButton
      aria-label={`Add ${add.what}`}
      onPress={typeof add.run === 'function' ? add.run : undefined}
    >
      <Plus size={13} />
    </QuietButton>
  );
  return (
    <section aria-label={title}>
      <ListHead>
        <h2>{title}</h2>
        {ways ? (
          <Menu label={`Add ${add!.what}`} entries={ways}>
            {button}
          </Menu>
        ) : (
          button
        )}
      </ListHead>
      {children}
    </section>
  );
}
