import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { ROW_COMMANDS } from '../minds/outline/row-keys.ts';
import { STATE_COMMANDS } from '../minds/states/state-keys.ts';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { shortcutsShown } from '../state/view-slice.ts';
import { QuietButton } from '../ui/button.tsx';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { Kbd } from '../ui/pill.tsx';
import { keyShown } from '../ui/timing/pressed-key.ts';
import { keysText, useCommandList, useShortcuts } from '../shell/commands.tsx';
import { shortcutOf } from '../shell/own-keys.ts';

const Scroll = styled.div`
  max-height: 60vh;
  overflow: auto;
  scrollbar-gutter: stable;
  h3 {
    margin-top: 12px;
    font-weight: 600;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  td {
    padding: 2px 6px 2px 0;
    border-bottom: 1px solid var(--line);
  }
  td:last-child {
    width: 150px;
    text-align: right;
  }
  button {
    min-height: 24px;
  }
`;

/** Keys of what has the focus, which depend on it and stay as they are. */
const TABLES = [
  ['While a state on the plan has the focus', Object.values(STATE_COMMANDS)],
  ['While a row of a tree or of rules has the focus', Object.values(ROW_COMMANDS)],
] as const;

/** Every command with its key, which can be changed and is kept. */
export function ShortcutSheet() {
  const dispatch = useAppDispatch();
  const isOpen = useAppSelector(({ view }) => view.shortcuts);
  const all = useCommandList();
  const { setKeys, ownKeys } = useShortcuts();
  const [changing, setChanging] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    if (changing === null) return undefined;
    const onKey = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      if (event.key === 'Escape') return setChanging(null);
      const keys = shortcutOf(event);
      if (keys === null) return undefined;
      const other = all.find((command) => command.keys === keys && command.id !== changing);
      if (other) {
        setTrouble(`${keysText(keys)} is the key of “${other.name}”. Press another, or Esc.`);
        return undefined;
      }
      setKeys(changing, keys);
      setTrouble(null);
      setChanging(null);
      return undefined;
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [changing, all, setKeys]);
  const shown = all.filter(({ id, keys }) => keys !== undefined || !id.startsWith('reference '));
  return (
    <Dialog title="Shortcuts" isOpen={isOpen} wide onClose={() => dispatch(shortcutsShown(false))}>
      {trouble && (
        <p role="alert" style={{ color: 'var(--harm)' }}>
          {trouble}
        </p>
      )}
      <Scroll tabIndex={0} role="group" aria-label="All shortcuts">
        <h3>Everywhere</h3>
        <table>
          <tbody>
            {shown.map(({ id, name, keys }) => (
              <tr key={id}>
                <td>{name}</td>
                <td>{keys ? <Kbd>{keysText(keys)}</Kbd> : <small>none</small>}</td>
                <td>
                  <QuietButton
                    aria-label={`Change the key of ${name}`}
                    onPress={() => {
                      setTrouble(null);
                      setChanging(id);
                    }}
                  >
                    {changing === id ? 'press a key …' : 'change'}
                  </QuietButton>
                  {ownKeys[id] !== undefined && (
                    <QuietButton
                      aria-label={`Usual key of ${name}`}
                      onPress={() => setKeys(id, null)}
                    >
                      usual
                    </QuietButton>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {TABLES.map(([title, commands]) => (
          <div key={title}>
            <h3>{title}</h3>
            <table>
              <tbody>
                {commands.map(({ name, keys }) => (
                  <tr key={name}>
                    <td>{name}</td>
                    <td>
                      {keys.map((key) => (
                        <Kbd key={key}>{keyShown(key)}</Kbd>
                      ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        ))}
      </Scroll>
    </Dialog>
  );
}
