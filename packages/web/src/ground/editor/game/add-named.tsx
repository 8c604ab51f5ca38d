import { NAME_PATTERN } from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import { Button } from '../../../ui/button.tsx';
import { checkName } from '../../../ui/fields/fields.tsx';

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
    font-family: var(--mono);
  }
  p {
    flex-basis: 100%;
    color: var(--harm);
  }
`;

/** Adds something that is called by a name of its own. */
export function AddNamed({
  what,
  taken,
  onAdd,
}: {
  /** “wave”. */
  what: string;
  taken: object;
  onAdd: (name: string) => void;
}) {
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const add = (event: FormEvent) => {
    event.preventDefault();
    const reason = NAME_PATTERN.test(name) ? checkName('', taken)(name) : checkName('', {})(name);
    setTrouble(reason);
    if (reason) return;
    onAdd(name);
    setName('');
  };
  return (
    <Form onSubmit={add}>
      <input
        aria-label={`Name of the new ${what}`}
        placeholder={`name of a ${what}`}
        value={name}
        onChange={({ target }) => setName(target.value)}
      />
      <Button type="submit">
        <Plus size={13} /> Add {what}
      </Button>
      {trouble && <p role="alert">{trouble}</p>}
    </Form>
  );
}
