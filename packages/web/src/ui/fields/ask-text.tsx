import { useState, type FormEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import { Button, MainButton } from '../button.tsx';
import { Dialog } from '../overlays/dialog.tsx';

const Form = styled.form`
  display: grid;
  gap: 8px;
  input {
    width: 100%;
    padding: 4px 8px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
  }
  p[role='alert'] {
    color: var(--harm);
  }
  > div {
    display: flex;
    justify-content: end;
    gap: 8px;
  }
`;

interface Question {
  /** “A new mind”. */
  title: string;
  label: string;
  /** “Add it”. */
  verb: string;
  value?: string;
  about?: ReactNode;
  /** Why a text can't be taken; null where it can. */
  check: (text: string) => string | null;
  /** Why it could not be done; null where it was. */
  onGive: (text: string) => string | null;
}

/** `ask` opens a dialog for one line of text; the dialog must be rendered. */
export function useAskText(): { ask: (question: Question) => void; dialog: ReactNode } {
  const [question, setQuestion] = useState<Question | null>(null);
  return {
    ask: setQuestion,
    dialog: question && <AskText question={question} onClose={() => setQuestion(null)} />,
  };
}

function AskText({ question, onClose }: { question: Question; onClose: () => void }) {
  const { title, label, verb, about, check, onGive } = question;
  const [text, setText] = useState(question.value ?? '');
  const [trouble, setTrouble] = useState<string | null>(null);
  const give = (event: FormEvent) => {
    event.preventDefault();
    const problem = check(text) ?? onGive(text.trim());
    if (problem === null) onClose();
    else setTrouble(problem);
  };
  return (
    <Dialog title={title} isOpen onClose={onClose}>
      <Form onSubmit={give}>
        <label htmlFor="asked-text">{label}</label>
        <input
          id="asked-text"
          autoFocus
          autoComplete="off"
          value={text}
          onFocus={(event) => event.target.select()}
          onChange={(event) => {
            setText(event.target.value);
            setTrouble(null);
          }}
        />
        {about}
        {trouble && <p role="alert">{trouble}</p>}
        <div>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit">{verb}</MainButton>
        </div>
      </Form>
    </Dialog>
  );
}
