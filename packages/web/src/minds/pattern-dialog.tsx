import {
  addPattern,
  contentsOf,
  lackedBy,
  moveFor,
  namesOf,
  PATTERNS,
  strikingMoves,
  type PatternNeed,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { useState } from 'react';
import { useProject } from '../state/store.ts';
import { useEdit } from '../state/use-edit.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog, DialogColumns } from '../ui/overlays/dialog.tsx';
import { ChoiceField, FlagField, Row, Rows } from '../ui/fields/fields.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { ListItem } from '../ui/place.ts';
import { Buttons, Trouble } from './sheet-layout.ts';

/** What each need is called, and how it is met. */
const NEEDS: Record<PatternNeed, { needs: string; give: string }> = {
  sight: { needs: 'sight', give: 'Give it sight' },
  hearing: { needs: 'hearing', give: 'Give it hearing' },
  squad: { needs: 'a squad', give: 'Make a squad for it' },
  move: { needs: 'a move to strike with', give: 'Give it a move' },
  route: { needs: 'a route for each of its agents', give: 'Give its agents a route' },
};

/** What an archetype lacks for a pattern, each to be given with the mind or left out. */
function Needs({
  document,
  archetype,
  lacks,
  without,
  onToggle,
}: {
  document: ProjectDocument;
  archetype: string;
  lacks: readonly PatternNeed[];
  without: ReadonlySet<PatternNeed>;
  onToggle: (need: PatternNeed, give: boolean) => void;
}) {
  const { title } = document.archetypes[archetype];
  const { routes } = document.grounds[document.start.ground];
  if (lacks.length === 0) return <p>{title} has all that it needs.</p>;
  return (
    <Rows>
      {lacks.map((need) =>
        need === 'route' && namesOf(routes).length === 0 ? (
          <Row key={need} label="Route">
            There is no route yet: its agents stand until you draw one on the Ground page and choose
            it for them.
          </Row>
        ) : (
          <FlagField
            key={need}
            label={NEEDS[need].give}
            of={title}
            value={!without.has(need)}
            onChange={(give) => onToggle(need, give)}
          />
        ),
      )}
    </Rows>
  );
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
  const [archetype, setArchetype] = useState('');
  const [without, setWithout] = useState<ReadonlySet<PatternNeed>>(new Set());
  const pattern = PATTERNS.find(({ id }) => id === chosen)!;
  const values = Object.fromEntries(
    pattern.parameters.map(({ name, value }) => [name, given[`${chosen} ${name}`] ?? value]),
  );
  const body = archetype === '' ? undefined : document.archetypes[archetype];
  const lacks = body ? lackedBy(document, archetype, pattern) : [];
  const use = body ? { archetype, give: lacks.filter((need) => !without.has(need)) } : null;
  const moves = body ? strikingMoves(body) : [];
  const move = wanted !== null && moves.includes(wanted) ? wanted : moveFor(document, use);
  const mind = pattern.make(values, move);
  const before = body?.mind === undefined ? undefined : document.minds[body.mind]?.title;
  const add = () => {
    const { name, command } = addPattern(document, pattern, values, move, use);
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
            <ChoiceField
              label="For"
              of={pattern.title}
              value={archetype}
              options={[
                { id: '', title: 'no archetype yet' },
                ...namesOf(document.archetypes).map((id) => ({
                  id,
                  title: document.archetypes[id].title,
                })),
              ]}
              onChoose={setArchetype}
            >
              {before !== undefined && ` instead of its mind ${before}`}
            </ChoiceField>
            {pattern.strikesWith !== undefined && body && moves.length > 0 && (
              <ChoiceField
                label={pattern.strikesWith}
                of={pattern.title}
                value={move}
                options={moves.map((id) => ({ id, title: body.moves![id].title ?? id }))}
                onChoose={setWanted}
              />
            )}
          </Rows>
          {body ? (
            <Needs
              document={document}
              archetype={archetype}
              lacks={lacks}
              without={without}
              onToggle={(need, give) =>
                setWithout((left) => {
                  const next = new Set(left);
                  if (give) next.delete(need);
                  else next.add(need);
                  return next;
                })
              }
            />
          ) : (
            <p>
              An archetype with this mind needs{' '}
              {pattern.needs.map((need) => NEEDS[need].needs).join(' and ')}.
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
