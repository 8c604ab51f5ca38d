import { useMemo, useState } from 'react';
import {
  Autocomplete,
  Header,
  Input,
  Menu,
  MenuItem,
  MenuSection,
  SearchField,
  useFilter,
} from 'react-aria-components';
import styled from 'styled-components';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { Kbd } from '../ui/pill.tsx';
import type { CommandGroup } from './command-groups.ts';
import { keysText, useCommandList, useCommands } from './commands.tsx';
import { listedCommands } from './listed-commands.ts';
import { keepUsedLately, readUsedLately } from './used-lately.ts';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { commandListShown } from '../state/view-slice.ts';

const Search = styled(SearchField)`
  input {
    width: 100%;
    padding: 6px 10px;
    border: 1px solid var(--line2);
    border-radius: 8px;
    background: var(--night);
  }
`;

const Scroll = styled.div`
  max-height: 46vh;
  margin-top: 8px;
  overflow: auto;
`;

const Entry = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  gap: 1em;
  padding: 4px 10px;
  border-radius: 6px;
  cursor: default;
  outline: none;
  &[data-focused] {
    background: var(--raised);
  }
  &[data-disabled] {
    color: var(--mute);
  }
  small {
    color: var(--mute);
    font-size: 1em;
  }
`;

const SectionTitle = styled(Header)`
  padding: 8px 10px 2px;
  color: var(--mute);
  font-size: 12px;
`;

/** What the focus is in, for the group of commands that comes first. */
function focusedGroup(): CommandGroup {
  const part = document.activeElement?.closest<HTMLElement>('[data-commands]');
  return (part?.dataset.commands as CommandGroup | undefined) ?? 'page';
}

/** By what the list is ordered while it is open. */
const orderNow = () => ({ focused: focusedGroup(), usedLately: readUsedLately() });

/** Every command by name, with its shortcut beside it. */
export function CommandList() {
  const dispatch = useAppDispatch();
  const isOpen = useAppSelector(({ view }) => view.commandList);
  const commands = useCommandList();
  const { contains } = useFilter({ sensitivity: 'base' });
  const [order, setOrder] = useState(orderNow);
  const close = () => dispatch(commandListShown(false));
  useCommands(
    useMemo(
      () => [
        {
          id: 'commands',
          name: 'Show all commands',
          keys: '$mod+KeyK',
          run: () => {
            setOrder(orderNow());
            dispatch(commandListShown(true));
          },
        },
      ],
      [dispatch],
    ),
    'everywhere',
  );
  return (
    <Dialog title="Commands" isOpen={isOpen} onClose={close}>
      {/* In the field, Escape would only clear what was typed. */}
      <div
        onKeyDownCapture={(event) => {
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          close();
        }}
      >
        <Autocomplete filter={contains}>
          <Search aria-label="Find a command" autoFocus>
            <Input placeholder="Type part of a name" />
          </Search>
          <Scroll tabIndex={0} role="group" aria-label="All commands">
            <Menu aria-label="Commands" renderEmptyState={() => 'No command has that in its name.'}>
              {listedCommands(commands, order.focused, order.usedLately).map((section) => (
                <MenuSection key={section.title}>
                  <SectionTitle>{section.title}</SectionTitle>
                  {section.commands.map((command) => (
                    <Entry
                      key={command.id}
                      id={command.id}
                      textValue={[command.name, ...(command.aliases ?? [])].join(' · ')}
                      isDisabled={command.disabled !== undefined}
                      onAction={() => {
                        keepUsedLately(command.id);
                        close();
                        command.run();
                      }}
                    >
                      <span>
                        {command.name} {command.disabled && <small>· {command.disabled}</small>}
                      </span>
                      {command.keys && <Kbd>{keysText(command.keys)}</Kbd>}
                    </Entry>
                  ))}
                </MenuSection>
              ))}
            </Menu>
          </Scroll>
        </Autocomplete>
      </div>
    </Dialog>
  );
}
