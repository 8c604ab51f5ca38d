import { freshInput } from '@crooked-lantern/core';
import { useState, type ReactNode } from 'react';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { Buttons, Trouble } from '../../minds/sheet-layout.ts';
import { useDocumentNow } from '../../state/store.ts';
import { Button, MainButton } from '../../ui/button.tsx';
import { Dialog } from '../../ui/overlays/dialog.tsx';

const PLACE = { number: true } as const;

/** Adds what was asked for. Returns why it could not be done; null means done. */
type Give = (input: string) => string | null;

/** `ask` opens the dialog, which must be rendered, for what a new consideration looks at. */
export function useNewConsideration(mind: string): {
  ask: (give: Give) => void;
  dialog: ReactNode;
} {
  // In an object: a function would be taken for a change of the state.
  const [asked, setAsked] = useState<{ give: Give } | null>(null);
  return {
    ask: (give) => setAsked({ give }),
    dialog: asked && (
      <NewConsideration mind={mind} give={asked.give} onClose={() => setAsked(null)} />
    ),
  };
}

function NewConsideration({
  mind,
  give,
  onClose,
}: {
  mind: string;
  give: Give;
  onClose: () => void;
}) {
  const documentNow = useDocumentNow();
  const [input, setInput] = useState(() => freshInput(documentNow(), mind));
  const [trouble, setTrouble] = useState<string | null>(null);
  const add = () => {
    const refused = give(input);
    if (refused === null) onClose();
    else setTrouble(refused);
  };
  return (
    <Dialog title="A new consideration" isOpen onClose={onClose}>
      <p>It looks at a number, such as a distance, and turns it into a value from 0 to 1.</p>
      <ExpressionField
        mind={mind}
        label="What it looks at"
        value={input}
        path=""
        place={PLACE}
        startsOpen
        onCommit={setInput}
      />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <Buttons>
        <Button onPress={onClose}>Cancel</Button>
        <MainButton onPress={add}>Add it</MainButton>
      </Buttons>
    </Dialog>
  );
}
