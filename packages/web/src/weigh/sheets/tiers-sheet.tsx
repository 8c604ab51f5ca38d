import {
  nameFromWords,
  numberAt,
  TIER_CHANGE_FIELDS,
  tieredNumber,
  stepsOfPath,
  tierInForce,
  tierNumbers,
  wordsOfPath,
  type TierChangeDocument,
  type TierDocument,
} from '@crooked-lantern/core';
import { ArrowLeft, Plus } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { RowFindings } from '../../findings/row-findings.tsx';
import { Buttons, PartTitle, Trouble } from '../../minds/sheet-layout.ts';
import { useProject } from '../../state/store.ts';
import type { Editing } from '../../state/use-edit.ts';
import { useAskText } from '../../ui/fields/ask-text.tsx';
import { Button, QuietButton, RemoveButton } from '../../ui/button.tsx';
import { ChooseFrom } from '../../ui/fields/choose-from.tsx';
import { checkTitle, Choice } from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { PartName } from '../../project/part-name.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { readNumber } from '../../ui/fields/number-text.tsx';
import { SideSheet } from '../layout.ts';

const Table = styled.table`
  width: 100%;
  margin: 8px 0;
  border-collapse: collapse;
  th {
    color: var(--mute);
    font-weight: 600;
    text-align: left;
  }
  th[aria-current='true'] {
    color: var(--lampText);
  }
  th,
  td {
    padding: 3px 6px 3px 0;
    border-bottom: 1px solid var(--line);
    vertical-align: top;
  }
  code {
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    color: var(--mute);
  }
`;

/** A cell as it is written: `0.2`, or `×0.5`. */
function cellText(change: TierChangeDocument | undefined): string {
  if (!change) return '';
  return change.value === undefined ? `×${change.factor ?? 1}` : String(change.value);
}

/** A value, a factor with × or x before it, or nothing. */
function readCell(text: string): Pick<TierChangeDocument, 'value' | 'factor'> | null {
  const plain = text.trim();
  if (plain === '') return null;
  const isFactor = /^[×x*]/.test(plain);
  const number = readNumber(isFactor ? plain.slice(1) : plain);
  return isFactor ? { factor: number } : { value: number };
}

function checkCell(text: string): string | null {
  const cell = readCell(text);
  if (!cell) return null;
  const [field, number] = Object.entries(cell)[0];
  const { minimum, maximum } = TIER_CHANGE_FIELDS[field as 'value' | 'factor'];
  return number >= minimum && number <= maximum
    ? null
    : 'It takes a number, or a factor such as ×0.5; nothing leaves it as it is.';
}

/** The numbers that differ by tier, a row each; tiers across, the easiest first. */
export function TiersSheet({
  editing,
  asked,
  onClose,
}: {
  editing: Editing;
  /** Path of a number that is to differ; any other text for none. */
  asked: string;
  onClose: () => void;
}) {
  const document = useProject((project) => project.document);
  const { put, run, trouble } = editing;
  const { ask, dialog } = useAskText();
  const [fresh, setFresh] = useState<string[]>(() =>
    numberAt(document, asked) === undefined ? [] : [asked],
  );
  const [isChoosing, setChoosing] = useState(false);
  const adder = useRef<HTMLButtonElement>(null);
  const numbers = useMemo(() => (isChoosing ? tierNumbers(document) : []), [isChoosing, document]);
  const tiers = document.tiers ?? [];
  const inForce = tierInForce(document);
  const written = tiers.flatMap(({ changes = [] }) => changes.map(({ path }) => path));
  const paths = [...new Set([...written, ...fresh])].sort();

  const setTiers = (next: TierDocument[]) => put(['tiers'], next.length > 0 ? next : undefined);
  const setCell = (at: number, path: string, text: string) => {
    const { changes = [], ...tier } = tiers[at];
    const cell = readCell(text);
    const others = changes.filter((change) => change.path !== path);
    const next = cell ? [...others, { path, ...cell }] : others;
    setTiers(
      tiers.map((each, i) =>
        i === at ? { ...tier, ...(next.length > 0 && { changes: next }) } : each,
      ),
    );
  };
  const addTier = () =>
    ask({
      title: 'A new tier',
      label: 'Title',
      verb: 'Add it',
      value: tiers.length === 0 ? 'Gentle' : 'Fierce',
      check: checkTitle,
      onGive: (title) => {
        const names = Object.fromEntries(tiers.map(({ name }) => [name, true]));
        const tier = { name: nameFromWords(title, names, 'tier'), title };
        return editing.attempt({
          command: 'put',
          how: 'set',
          path: ['tiers'],
          value: [...tiers, tier],
        });
      },
    });
  const wordsOf = (path: string) => wordsOfPath(document, stepsOfPath(path) ?? []);
  return (
    <SideSheet aria-label="Tiers">
      <PartTitle>Tiers</PartTitle>
      {tiers.length === 0 ? (
        <p style={{ color: 'var(--mute)' }}>
          Tiers are levels of difficulty: each changes some numbers of the project. Add the easiest
          first.
        </p>
      ) : (
        <p>
          In force:{' '}
          <Choice
            label="Active tier"
            value={inForce?.name ?? ''}
            options={tiers.map(({ name, title }) => ({ id: name, title: title ?? name }))}
            onChoose={(tier) => run({ command: 'changeStart', change: { tier } })}
          />
        </p>
      )}
      {tiers.length > 0 && (
        <Table aria-label="Numbers by tier">
          <thead>
            <tr>
              <th scope="col">Number</th>
              {tiers.map((tier, i) => (
                <th scope="col" key={tier.name} aria-current={tier === inForce}>
                  <InlineText
                    label={`Title of tier ${i + 1}`}
                    value={tier.title ?? tier.name}
                    check={(title) => checkTitle(title)}
                    onCommit={(title) => put(['tiers', i, 'title'], title.trim())}
                  />
                  <br />
                  <PartName
                    label={`Name of tier ${i + 1} in the file`}
                    part="tiers"
                    name={tier.name}
                  />
                  <RemoveButton
                    label={`Remove the tier ${tier.title ?? tier.name}`}
                    onPress={() => {
                      const left = tiers.filter((_, k) => k !== i);
                      const { start } = document;
                      if (start.tier === tier.name)
                        run({ command: 'changeStart', change: { tier: left[0]?.name } });
                      setTiers(left);
                    }}
                  />
                  {i > 0 && (
                    <QuietButton
                      style={{ minHeight: 24 }}
                      aria-label={`Move ${tier.title ?? tier.name} one to the left`}
                      onPress={() =>
                        setTiers(
                          tiers.map((each, k) =>
                            k === i - 1 ? tier : k === i ? tiers[i - 1] : each,
                          ),
                        )
                      }
                    >
                      <ArrowLeft size={12} />
                    </QuietButton>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {paths.map((path) => {
              const number = numberAt(document, path);
              const words = wordsOf(path);
              return (
                <tr key={path}>
                  <td>
                    {words[0].toUpperCase() + words.slice(1)}
                    <small>{number === undefined ? 'is gone' : `as written: ${number}`}</small>
                  </td>
                  {tiers.map((tier, i) => {
                    const change = tier.changes?.find((each) => each.path === path);
                    const title = tier.title ?? tier.name;
                    return (
                      <td key={tier.name}>
                        <InlineText
                          mono
                          label={`${words} in ${title}`}
                          value={cellText(change)}
                          placeholder="same"
                          check={checkCell}
                          onCommit={(text) => setCell(i, path, text)}
                        />
                        {change && number !== undefined && change.value === undefined && (
                          <small>{Number(tieredNumber(number, change).toFixed(3))}</small>
                        )}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
      {tiers.map((tier, i) => (
        <div key={tier.name}>
          <NoteText
            label={`Note on ${tier.title ?? tier.name}`}
            note={tier.note}
            onCommit={(note) => put(['tiers', i, 'note'], note)}
          />
          <RowFindings path={`tiers[${i}]`} />
        </div>
      ))}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <Buttons>
        <Button onPress={addTier}>
          <Plus size={14} /> Add a tier
        </Button>
        {tiers.length > 0 && (
          <Button ref={adder} onPress={() => setChoosing(true)}>
            <Plus size={14} /> Add a number
          </Button>
        )}
        <Button onPress={onClose}>
          <ArrowLeft size={14} /> Back to the choice
        </Button>
      </Buttons>
      {isChoosing && (
        <ChooseFrom
          label="Number that differs by tier"
          at={adder}
          choices={numbers
            .filter(({ path }) => !paths.includes(path))
            .map(({ path, words, value }) => ({ id: path, name: words, about: `now ${value}` }))}
          onChoose={(path) => {
            setChoosing(false);
            setFresh((before) => [...before, path]);
          }}
          onClose={() => setChoosing(false)}
        />
      )}
      {dialog}
    </SideSheet>
  );
}
