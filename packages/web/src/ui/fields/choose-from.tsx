import { useRef, type KeyboardEvent, type RefObject } from 'react';
import { Autocomplete, Input, Menu, MenuItem, SearchField, useFilter } from 'react-aria-components';
import styled from 'styled-components';
import { openedEntry, openedList, Surface } from '../overlays/menu.tsx';

/** Something to choose, with its one-line meaning. */
export interface NamedChoice {
  id: string;
  name: string;
  about: string;
  /** What it is found by, where that is not its name. */
  found?: string;
}

const Box = styled(Surface)`
  width: min(520px, calc(100vw - 24px));
`;

/** The field above a list that is found in by typing. */
export const Search = styled(SearchField)`
  input {
    width: 100%;
    padding: 4px 8px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
  }
`;

const List = styled(Menu)`
  ${openedList}
  margin-top: 4px;
`;

const Entry = styled(MenuItem)`
  ${openedEntry}
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 10px;
  small {
    color: var(--mute);
    font-size: 1em;
  }
`;

/** A list to choose from, found by typing part of a name, with the one-line meaning beside each. */
export function ChooseFrom({
  label,
  at,
  choices,
  onChoose,
  onClose,
}: {
  label: string;
  /** What it opens under. */
  at: RefObject<Element | null>;
  choices: readonly NamedChoice[];
  onChoose: (id: string) => void;
  onClose: () => void;
}) {
  const { contains } = useFilter({ sensitivity: 'base' });
  // A list that is taken from closes too; only one that is left has been given up.
  const taken = useRef(false);
  const take = (id: string) => {
    // The list takes the entry that has its focus by itself, which may be the same press.
    if (taken.current) return;
    taken.current = true;
    onChoose(id);
  };
  /** Enter takes the first of what is listed, also before an arrow has gone to it. */
  const takeFirst = (event: KeyboardEvent<HTMLInputElement>) => {
    const { currentTarget: input, key } = event;
    if (key !== 'Enter' || input.getAttribute('aria-activedescendant')) return;
    const first = choices.find(({ name, found = name }) => contains(found, input.value));
    if (!first) return;
    event.preventDefault();
    take(first.id);
  };
  return (
    <Box
      isOpen
      triggerRef={at}
      placement="bottom start"
      aria-label={label}
      onOpenChange={(open) => !open && !taken.current && onClose()}
    >
      <Autocomplete filter={contains}>
        <Search aria-label={label} autoFocus>
          <Input placeholder="Type part of a name" onKeyDown={takeFirst} />
        </Search>
        <List
          aria-label={label}
          renderEmptyState={() => 'Nothing has that in its name.'}
          onAction={(key) => take(String(key))}
        >
          {choices.map(({ id, name, about, found = name }) => (
            <Entry key={id} id={id} textValue={found}>
              <span>{name}</span>
              <small>{about}</small>
            </Entry>
          ))}
        </List>
      </Autocomplete>
    </Box>
  );
}
