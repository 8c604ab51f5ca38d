import { addMind, contentsOf, PATTERNS } from '@crooked-lantern/core';
import { useState } from 'react';
import { useProject } from '../state/store.ts';
import { useEdit } from '../state/use-edit.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog, DialogColumns } from '../ui/dialog.tsx';
import { Row, Rows } from '../ui/fields.tsx';
import { NumberText } from '../ui/number-text.tsx';
import { ListItem } from '../ui/place.ts';
import { Buttons, Trouble } from './sheet-layout.ts';

/** A new mind from a pattern: its few numbers, and what it will add, before it is added as ordinary states and rows. */
export function PatternDialog({
  onClose,
  onMade,
}: {
  onClose: () => void;
  onMade: (mind: string) => void;
}) {
  const document = useProject((project) => project.document);
  const { run, trouble } = useEdit();
  const [chosen, setChosen] = useState(PATTERNS[0].id);
  const [given, setGiven] = useState<Readonly<Record<string, number>>>({});
  const pattern = PATTERNS.find(({ id }) => id === chosen)!;
  const values = Object.fromEntries(
    pattern.parameters.map(({ name, value }) => [name, given[`${chosen} ${name}`] ?? value]),
  );
  const mind = pattern.make(values);
  const add = () => {
    const { name, command } = addMind(document, mind);
    if (run(command)) onMade(name);
  };
  return (
    <Dialog title="A mind from a pattern" isOpen wide onClose={onClose}>
      <DialogColumns $list="190px">
        <div role="group" aria-label="Patterns">
          {PATTERNS.map(({ id, title }) => (
            <ListItem
              key={id}
              type="button"
              aria-current={id === chosen}
              onClick={() => setChosen(id)}
            >
              {title}
            </ListItem>
          ))}
        </div>
        <section aria-label={pattern.title}>
          <p>{pattern.about}</p>
          <Rows>
            {pattern.parameters.map(({ name, label, unit, minimum, maximum }) => (
              <Row key={name} label={label}>
                <NumberText
                  label={`${label}: ${pattern.title}`}
                  spec={{ minimum, maximum }}
                  value={values[name]}
                  onCommit={(value) =>
                    setGiven((before) => ({ ...before, [`${chosen} ${name}`]: value }))
                  }
                />{' '}
                {unit}
              </Row>
            ))}
          </Rows>
          <p>It will add:</p>
          <ul aria-label="What it will add">
            {contentsOf(mind).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          {trouble && <Trouble role="alert">{trouble}</Trouble>}
          <Buttons>
            <Button onPress={onClose}>Cancel</Button>
            <MainButton onPress={add}>Add the mind</MainButton>
          </Buttons>
        </section>
      </DialogColumns>
    </Dialog>
  );
}
