import {
  addMind,
  contentsOf,
  namesOf,
  PATTERNS,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { useState } from 'react';
import { useProject } from '../state/store.ts';
import { useEdit } from '../state/use-edit.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog, DialogColumns } from '../ui/overlays/dialog.tsx';
import { ChoiceField, Row, Rows } from '../ui/fields/fields.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { ListItem } from '../ui/place.ts';
import { Buttons, Trouble } from './sheet-layout.ts';

/** The moves there are that are no dodges, by name; each archetype may have its own of a name. */
function movesOf({ archetypes }: ProjectDocument): { id: string; title: string }[] {
  const all = Object.values(archetypes).flatMap(({ moves = {} }) =>
    namesOf(moves)
      .filter((id) => moves[id].kind !== 'dodge')
      .map((id) => ({ id, title: moves[id].title ?? id })),
  );
  return all.filter(({ id }, i) => all.findIndex((other) => other.id === id) === i);
}

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
  const [wanted, setWanted] = useState<string | null>(null);
  const pattern = PATTERNS.find(({ id }) => id === chosen)!;
  const values = Object.fromEntries(
    pattern.parameters.map(({ name, value }) => [name, given[`${chosen} ${name}`] ?? value]),
  );
  const moves = movesOf(document);
  const move = moves.find(({ id }) => id === wanted) ?? moves[0];
  const mind = pattern.make(values, move?.id ?? 'strike');
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
            {pattern.strikesWith !== undefined && move && (
              <ChoiceField
                label={pattern.strikesWith}
                of={pattern.title}
                value={move.id}
                options={moves}
                onChoose={setWanted}
              />
            )}
          </Rows>
          {pattern.strikesWith !== undefined && !move && (
            <p>
              No archetype has a move yet: give the archetype that gets this mind one called{' '}
              <code>strike</code>, in Cast.
            </p>
          )}
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
