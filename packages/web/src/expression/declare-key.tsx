import { MEMORY_TYPES, NAME_PATTERN, nameFromWords, type MemoryType } from '@crooked-lantern/core';
import { useState, type FormEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import { perform } from '../state/perform.ts';
import { useAppDispatch, useProject } from '../state/store.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { checkTitle, Choice } from '../ui/fields/fields.tsx';

/** Declaring a key of a mind's memory where an action needs one. */

const Form = styled.form`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-items: center;
  gap: 8px 12px;
  input {
    padding: 3px 6px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
  }
  p {
    grid-column: 1 / -1;
    color: var(--mute);
  }
  p[role='alert'] {
    color: var(--harm);
  }
  > div {
    grid-column: 1 / -1;
    display: flex;
    justify-content: end;
    gap: 8px;
  }
`;

interface Asked {
  /** Whether a list is wanted, or one value; left out: either. */
  list?: boolean;
  /** A name to begin with. */
  name?: string;
  onDeclared: (name: string, type: MemoryType) => void;
}

/** `ask` opens the dialog, which must be rendered; `onDeclared` is called with the name of the key that was declared. */
export function useDeclareKey(mind: string): {
  ask: (asked: Asked) => void;
  dialog: ReactNode;
} {
  const [asked, setAsked] = useState<Asked | null>(null);
  return {
    ask: setAsked,
    dialog: asked && <DeclareKey mind={mind} asked={asked} onClose={() => setAsked(null)} />,
  };
}

function DeclareKey({
  mind,
  asked: { list, name: wanted = '', onDeclared },
  onClose,
}: {
  mind: string;
  asked: Asked;
  onClose: () => void;
}) {
  const dispatch = useAppDispatch();
  const memory = useProject(({ document }) => document.minds[mind]?.memory);
  const types = MEMORY_TYPES.filter(
    (type) => list === undefined || type.startsWith('list') === list,
  );
  const [said, setSaid] = useState(wanted);
  // A name as programmers write it is taken as it is; words become a title, and a name made from it.
  const isName = NAME_PATTERN.test(said);
  const name = isName ? said : nameFromWords(said, memory, 'key');
  const [type, setType] = useState<MemoryType>(list ? 'list of point' : 'agent');
  const [trouble, setTrouble] = useState<string | null>(null);
  const declare = (event: FormEvent) => {
    event.preventDefault();
    const reason = checkTitle(said);
    if (reason !== null) return setTrouble(reason);
    if (memory && Object.hasOwn(memory, name))
      return setTrouble(`There is a key “${name}” already.`);
    const path = ['minds', mind, 'memory', name];
    const refused = dispatch(
      perform({
        command: 'put',
        how: 'set',
        path,
        value: isName ? { type } : { title: said.trim(), type },
      }),
    );
    if (refused !== null) return setTrouble(refused);
    onClose();
    onDeclared(name, type);
  };
  return (
    <Dialog title={list ? 'A new list in memory' : 'A new key in memory'} isOpen onClose={onClose}>
      <Form onSubmit={declare}>
        <label htmlFor="key-title">Title</label>
        <input
          id="key-title"
          autoFocus
          autoComplete="off"
          value={said}
          onChange={(event) => {
            setSaid(event.target.value);
            setTrouble(null);
          }}
        />
        <span>Type</span>
        <span>
          <Choice
            label="Type of the key"
            value={type}
            options={types.map((id) => ({ id, title: id }))}
            onChoose={(id) => setType(id as MemoryType)}
          />
        </span>
        {trouble ? (
          <p role="alert">{trouble}</p>
        ) : (
          <p>
            The mind remembers it for itself; it holds nothing until something is remembered.
            {said.trim() !== '' && (
              <>
                {' '}
                Expressions call it <code>{name}</code>.
              </>
            )}
          </p>
        )}
        <div>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit">Declare</MainButton>
        </div>
      </Form>
    </Dialog>
  );
}
