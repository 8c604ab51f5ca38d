import {
  FRESH_GUARD,
  FRESH_MOVE,
  GUARD_FIELDS,
  MOVE_FIELDS,
  nameFromWords,
  namesOf,
  type ChoiceSpec,
  type FieldSpec,
  type FieldSpecs,
  type GuardDocument,
  type MoveDocument,
  type MoveKind,
} from '@crooked-lantern/core';
import { useState } from 'react';
import styled from 'styled-components';
import { TierValues } from '../project/tier-values.tsx';
import { PartName } from '../project/part-name.tsx';
import { RemoveButton } from '../ui/button.tsx';
import {
  checkTitle,
  Choice,
  ChoiceField,
  FlagField,
  NumberField,
  Rows,
} from '../ui/fields/fields.tsx';
import { AddByTitle } from '../ui/fields/add-by-title.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { NoteText } from '../ui/fields/note-text.tsx';
import { FindingsHere } from './findings-here.tsx';
import { OwnMark } from './kind-field.tsx';
import { Coverage, lengthOf, TimeBar } from './move-pictures.tsx';
import type { KindEditor } from './use-cast.ts';

/** What a body can do in a fight: its moves and guards. */

const Entry = styled.details`
  padding: 3px 0;
  border-top: 1px solid var(--line);
  summary {
    display: grid;
    grid-template-columns: 120px minmax(0, 1fr);
    align-items: center;
    gap: 8px;
    cursor: default;
    border-radius: 5px;
  }
  summary small {
    color: var(--mute);
    font-size: 0.92em;
  }
`;

/** The fields that mean something for a kind of move. */
const TIMES = ['windUp', 'active', 'recovery', 'cooldown'] as const;
const HITTING = ['reach', 'from', 'to', 'damage', 'knockback', 'stagger', 'turn'] as const;
const FLYING = ['shots', 'gap', 'spread'] as const;
const ALWAYS = ['advance', 'rooted', 'sturdy', 'noise'] as const;
const FIELDS_OF_KIND: Record<MoveKind, readonly (keyof typeof MOVE_FIELDS)[]> = {
  strike: [...TIMES, ...HITTING, 'arc', 'hits', ...ALWAYS],
  thrown: [...TIMES, ...HITTING, ...FLYING, 'speed', 'radius', 'drop', 'lead', ...ALWAYS],
  instant: [...TIMES, ...HITTING, ...FLYING, ...ALWAYS],
  dodge: [...TIMES, 'advance', 'invulnerable', 'rooted', 'sturdy', 'noise'],
};

/** One field by its spec. */
function SpecField({
  field,
  spec,
  of,
  path,
  part,
  onSet,
}: {
  field: string;
  spec: FieldSpec;
  of: string;
  /** Where the part stands in the document. */
  path: string;
  part: Record<string, unknown>;
  onSet: (field: string, value: unknown) => void;
}) {
  if (spec.kind === 'flag')
    return (
      <FlagField
        label={spec.label}
        of={of}
        value={part[field] === true}
        onChange={(value) => onSet(field, value ? true : undefined)}
      />
    );
  if (spec.kind === 'choice')
    return (
      <ChoiceField
        label={spec.label}
        of={of}
        value={String(part[field] ?? spec.usual ?? '')}
        options={(spec as ChoiceSpec).options.map((id) => ({ id, title: id }))}
        onChoose={(id) => onSet(field, id)}
      />
    );
  const usual = typeof spec.usual === 'number' ? spec.usual : undefined;
  return (
    <NumberField
      spec={spec}
      of={of}
      value={(part[field] as number | undefined) ?? usual}
      onCommit={(value) => onSet(field, value === usual ? undefined : value)}
    >
      <TierValues path={`${path}.${field}`} />
    </NumberField>
  );
}

function without(part: object, field: string, value: unknown): Record<string, unknown> {
  const { [field]: _, ...rest } = part as Record<string, unknown>;
  return value === undefined ? rest : { ...rest, [field]: value };
}

interface PartProps<T> {
  editor: KindEditor;
  list: 'moves' | 'guards';
  name: string;
  part: T;
  fields: readonly string[];
  specs: FieldSpecs;
  summary: React.ReactNode;
  picture: React.ReactNode;
}

function PartEntry<T extends MoveDocument | GuardDocument>({
  editor,
  list,
  name,
  part,
  fields,
  specs,
  summary,
  picture,
}: PartProps<T>) {
  const title = part.title ?? name;
  const of = `${title} of ${editor.of}`;
  const set = (field: string, value: unknown) =>
    editor.put([list, name], without(part, field, value));
  return (
    <Entry>
      <summary aria-label={title}>
        <span>
          {title}{' '}
          <OwnMark editor={editor} path={[list, name]} label={title} usual="its archetype’s" />
        </span>
        {summary}
      </summary>
      {picture}
      <Rows>
        <dt>Title</dt>
        <dd>
          <InlineText
            label={`Title of ${of}`}
            value={title}
            check={(text) => checkTitle(text)}
            onCommit={(text) => set('title', text.trim())}
          />{' '}
          <PartName label={`Name of ${of} in the file`} part={list} name={name} />
        </dd>
        {fields.map((field) => (
          <SpecField
            key={field}
            field={field}
            spec={specs[field]}
            of={of}
            path={`${editor.path}.${list}.${name}`}
            part={part as unknown as Record<string, unknown>}
            onSet={set}
          />
        ))}
      </Rows>
      <NoteText label={`Note on ${of}`} note={part.note} onCommit={(note) => set('note', note)} />
      <FindingsHere path={`${editor.path}.${list}.${name}`} />
      {!editor.base && (
        <RemoveButton label={`Remove ${of}`} onPress={() => editor.put([list, name], undefined)} />
      )}
    </Entry>
  );
}

export function FightSections({ editor }: { editor: KindEditor }) {
  const { kind, of, put } = editor;
  const moves = kind.moves ?? {};
  const guards = kind.guards ?? {};
  const [against, setAgainst] = useState('');
  // A cooldown may be many times as long as the move; the bars are for what comes before.
  const longest = Math.max(0.5, ...Object.values(moves).map(lengthOf)) * 1.2;
  const size = { radius: kind.body.radius, height: kind.body.height };
  const add = (list: 'moves' | 'guards', title: string, part: MoveDocument | GuardDocument) => {
    const name = nameFromWords(title, kind[list], list === 'moves' ? 'move' : 'guard');
    put([list, name], { ...part, title });
  };
  return (
    <>
      <section aria-label="Moves">
        <h3>Moves</h3>
        {namesOf(moves).length > 0 && namesOf(guards).length > 0 && (
          <p>
            Against{' '}
            <Choice
              label={`Guard laid over the moves of ${of}`}
              value={against}
              options={[
                { id: '', title: 'no guard' },
                ...namesOf(guards).map((id) => ({ id, title: guards[id].title ?? id })),
              ]}
              onChoose={setAgainst}
            />
          </p>
        )}
        {namesOf(moves).map((name) => {
          const move = moves[name];
          return (
            <PartEntry
              key={name}
              editor={editor}
              list="moves"
              name={name}
              part={move}
              fields={['kind', ...FIELDS_OF_KIND[move.kind ?? 'strike']]}
              specs={MOVE_FIELDS}
              summary={<TimeBar move={move} seconds={longest} against={guards[against]} />}
              picture={move.kind === 'dodge' ? null : <Coverage {...size} move={move} />}
            />
          );
        })}
        <AddByTitle what="move" onAdd={(title) => add('moves', title, FRESH_MOVE)} />
      </section>
      <section aria-label="Guards">
        <h3>Guards</h3>
        {namesOf(guards).map((name) => (
          <PartEntry
            key={name}
            editor={editor}
            list="guards"
            name={name}
            part={guards[name]}
            fields={Object.keys(GUARD_FIELDS)}
            specs={GUARD_FIELDS}
            summary={
              <small>
                {guards[name].from ?? (GUARD_FIELDS.from.usual as number)} to{' '}
                {guards[name].to ?? (GUARD_FIELDS.to.usual as number)} m
              </small>
            }
            picture={<Coverage {...size} guard={guards[name]} />}
          />
        ))}
        <AddByTitle what="guard" onAdd={(title) => add('guards', title, FRESH_GUARD)} />
      </section>
    </>
  );
}
