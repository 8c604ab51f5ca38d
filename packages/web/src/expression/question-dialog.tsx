import { namesOf } from '@crooked-lantern/core';
import { useMemo, useState, type FormEvent } from 'react';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog, DialogColumns } from '../ui/overlays/dialog.tsx';
import { Choice } from '../ui/fields/fields.tsx';
import { ListItem } from '../ui/place.ts';
import type { KnownKey } from './expression-editor.tsx';
import { PartValues } from './part-values.tsx';
import {
  expressionOf,
  NAMES_CALLED,
  namesFor,
  questionsWith,
  wordsFor,
  testedType,
  TESTS,
  TOPICS,
  type Question,
  type Topic,
} from './questions.ts';

const Questions = styled.div`
  max-height: 34vh;
  overflow: auto;
  scrollbar-gutter: stable;
`;

const Answer = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 8px;
  min-height: 30px;
  margin-top: 10px;
  input {
    width: 12ch;
    padding: 2px 6px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
    font-family: var(--mono);
  }
`;

const Result = styled.div`
  min-height: 4.6em;
  margin: 8px 0;
  padding: 6px 10px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--night);
  code {
    font-family: var(--mono);
  }
`;

const Foot = styled.div`
  grid-column: 1 / -1;
  display: flex;
  justify-content: end;
  gap: 8px;
`;

/** What there is to name, by type: parts of the project, and what is on the ground a run begins on. */
function useNamesOnGround(): Record<string, string[]> {
  const document = useProject((project) => project.document);
  const ground = document.grounds[document.start.ground];
  return useMemo(
    () => ({
      ...Object.fromEntries(
        Object.entries(NAMES_CALLED).map(([called, names]) => [
          called,
          [...new Set(names(document))].sort(),
        ]),
      ),
      route: namesOf(ground?.routes ?? {}),
      gate: namesOf(ground?.gates ?? {}),
      thing: namesOf(ground?.things ?? {}),
      zone: namesOf(ground?.zones ?? {}),
    }),
    [document, ground],
  );
}

const isFlagWanted = (wants: readonly string[]) => wants.length === 1 && wants[0] === 'flag';

/** Questions whose answer can be made to fit. */
function fitting(
  keys: readonly KnownKey[],
  wants: readonly string[],
  isDirector: boolean,
): Question[] {
  return questionsWith(keys, isDirector).filter(({ result }) => {
    if (wants.length === 0) return true;
    if (wants.includes(result)) return true;
    return isFlagWanted(wants) && !result.startsWith('list') && !/route|gate|zone/.test(result);
  });
}

/** Builds an expression for a user who does not know the names: what is it about, what of it, and when does it hold? */
export function QuestionDialog({
  mind,
  tree,
  keys,
  wants,
  isDirector,
  onTake,
  onClose,
}: {
  mind: string | null;
  tree: string | undefined;
  keys: readonly KnownKey[];
  /** Types that fit where it goes; none for any. */
  wants: readonly string[];
  isDirector: boolean;
  onTake: (expression: string) => void;
  onClose: () => void;
}) {
  const questions = useMemo(() => fitting(keys, wants, isDirector), [keys, wants, isDirector]);
  const onGround = useNamesOnGround();
  const topics = (Object.keys(TOPICS) as Topic[]).filter((topic) =>
    questions.some((question) => question.topic === topic),
  );
  const [topic, setTopic] = useState<Topic>(topics[0]);
  const shown = questions.filter((question) => question.topic === topic);
  const [id, setId] = useState('');
  const question = shown.find((one) => one.id === id) ?? shown[0];
  const [given, setGiven] = useState<Readonly<Record<string, string>>>({});
  const [how, setHow] = useState('');
  const [written, setWritten] = useState<string | null>(null);

  const tests = question ? Object.entries(TESTS[testedType(question.result)]) : [];
  const document = useProject((project) => project.document);
  const words = question ? wordsFor(question, document) : [];
  const isText = question?.result === 'text';
  const isWord = written !== null && words.includes(written);
  // Texts begin with a word that can come, and stay with one.
  const against =
    isText && words.length > 0 && !isWord ? words[0] : (written ?? (isText ? '' : '1'));
  const isTested = question !== undefined && isFlagWanted(wants);
  const chosenHow = tests.some(([key]) => key === how) ? how : (tests[0]?.[0] ?? '');
  const values = (question?.parameters ?? []).map(({ type }, i) => {
    const own = given[`${question.id} ${i}`];
    if (own !== undefined) return own;
    if (type === 'number') return '1';
    return namesFor(type, keys, onGround)[0] ?? '';
  });
  const missing = (question?.parameters ?? []).find(({ type }, i) => type !== 'text' && !values[i]);
  const expression =
    question && !missing
      ? expressionOf(question, values, isTested ? { how: chosenHow, with: against || '0' } : null)
      : null;
  const take = (event: FormEvent) => {
    event.preventDefault();
    if (expression !== null) onTake(expression);
  };
  const compares = isTested && (question.result === 'number' || question.result === 'text');
  return (
    <Dialog title="What do you want to ask?" isOpen wide onClose={onClose}>
      <DialogColumns as="form" $list="220px" onSubmit={take}>
        <div role="group" aria-label="About">
          {topics.map((one) => (
            <ListItem
              key={one}
              type="button"
              aria-pressed={one === topic}
              onClick={() => setTopic(one)}
            >
              {TOPICS[one]}
            </ListItem>
          ))}
        </div>
        <div>
          <Questions role="group" aria-label="Questions">
            {shown.map((one) => (
              <ListItem
                key={one.id}
                type="button"
                aria-pressed={one === question}
                onClick={() => setId(one.id)}
              >
                <span>{one.about}</span>
                <small>
                  {one.result}
                  {one.unit && one.unit !== 'same' ? `, ${one.unit}` : ''}
                </small>
              </ListItem>
            ))}
          </Questions>
          <Answer>
            {question?.parameters?.map(({ name, type }, i) => {
              const set = (value: string) =>
                setGiven((all) => ({ ...all, [`${question.id} ${i}`]: value }));
              return type === 'number' || type === 'text' ? (
                <label key={name}>
                  {name}{' '}
                  <input
                    value={values[i]}
                    inputMode={type === 'number' ? 'decimal' : undefined}
                    onChange={({ target }) => set(target.value)}
                  />
                </label>
              ) : (
                <span key={name}>
                  the {type === 'key' ? 'key' : name}{' '}
                  <Choice
                    label={`The ${name}`}
                    value={values[i]}
                    options={namesFor(type, keys, onGround).map((one) => ({ id: one, title: one }))}
                    onChoose={set}
                  />
                </span>
              );
            })}
            {isTested && (
              <Choice
                label="When it holds"
                value={chosenHow}
                options={tests.map(([key, title]) => ({ id: key, title }))}
                onChoose={setHow}
              />
            )}
            {compares && words.length > 0 && (
              <Choice
                label="Compared with"
                value={against}
                options={words.map((one) => ({ id: one, title: one }))}
                onChoose={setWritten}
              />
            )}
            {compares && words.length === 0 && (
              <label>
                <input
                  aria-label="Compared with"
                  value={against}
                  inputMode={question.result === 'number' ? 'decimal' : undefined}
                  onChange={({ target }) => setWritten(target.value)}
                />{' '}
                {question.unit && question.unit !== 'same' ? question.unit : ''}
              </label>
            )}
          </Answer>
          <Result aria-live="polite">
            {expression === null ? (
              missing && <p>Nothing here is called by a name that is of type {missing.type}.</p>
            ) : (
              <>
                <code>{expression}</code>
                {mind !== null && <PartValues mind={mind} source={expression} tree={tree} />}
              </>
            )}
          </Result>
        </div>
        <Foot>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit" isDisabled={expression === null}>
            Take it
          </MainButton>
        </Foot>
      </DialogColumns>
    </Dialog>
  );
}
