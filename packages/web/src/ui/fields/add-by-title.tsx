import { Plus } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import { Button } from '../button.tsx';
import { checkTitle } from './fields.tsx';

const Form = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  margin-top: 4px;
  input {
    flex: 1;
    min-width: 80px;
    padding: 2px 7px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
  }
  p {
    flex-basis: 100%;
    color: var(--harm);
  }
`;

/** Adds something that has a title, which is asked for at once. Escape closes it. */
export function AddByTitle({
  what,
  onAdd,
}: {
  /** “wave”. */
  what: string;
  onAdd: (title: string) => void;
}) {
  const [title, setTitle] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const close = () => {
    setTitle(null);
    setTrouble(null);
  };
  if (title === null)
    return (
      <Button onPress={() => setTitle('')}>
        <Plus size={13} /> Add a {what}
      </Button>
    );
  const add = (event: FormEvent) => {
    event.preventDefault();
    const reason = checkTitle(title);
    setTrouble(reason);
    if (reason) return;
    onAdd(title.trim());
    close();
  };
  return (
    <Form onSubmit={add}>
      <input
        // oxlint-disable-next-line jsx-a11y/no-autofocus -- the button that had the focus asked for it
        autoFocus
        aria-label={`Title of the new ${what}`}
        placeholder={`title of the ${what}`}
        value={title}
        onChange={({ target }) => setTitle(target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          close();
        }}
      />
      <Button type="submit">Add {what}</Button>
      {trouble && <p role="alert">{trouble}</p>}
    </Form>
  );
}
