import {
  CROUCH_SHARE,
  DEFAULT_BODY_HEIGHT,
  namesOf,
  type ArchetypeDocument,
} from '@crooked-lantern/core';
import { RemoveButton } from '../ui/button.tsx';
import { Choice, Row, Rows } from '../ui/fields.tsx';
import { factionNames, factionTitle } from './factions.ts';
import { GaitTable } from './gait-table.tsx';
import { KindChoice, KindNumber, OwnMark, type KindNumberProps } from './kind-field.tsx';
import { SenseFields } from './sense-fields.tsx';
import type { CastEditor, KindEditor } from './use-cast.ts';

function bodyNumbers({ body }: ArchetypeDocument): KindNumberProps[] {
  const low = Number(((body.height ?? DEFAULT_BODY_HEIGHT) * CROUCH_SHARE).toFixed(2));
  return [
    { path: ['body', 'radius'], label: 'Radius', unit: 'm', minimum: 0.1, maximum: 3 },
    {
      path: ['body', 'height'],
      label: 'Height',
      unit: 'm',
      minimum: 0.2,
      maximum: 6,
      fallback: DEFAULT_BODY_HEIGHT,
    },
    {
      path: ['body', 'crouchHeight'],
      label: 'Crouched',
      unit: 'm',
      minimum: 0.1,
      maximum: 6,
      fallback: low,
    },
    {
      path: ['body', 'acceleration'],
      label: 'Gathers speed',
      unit: 'm/s²',
      minimum: 0.1,
      maximum: 200,
    },
    { path: ['body', 'turnRate'], label: 'Turns', unit: '°/s', minimum: 1, maximum: 3600 },
    {
      path: ['health'],
      label: 'Health',
      unit: 'points',
      minimum: 1,
      maximum: 1_000_000,
      none: 'can’t be hurt',
    },
    {
      path: ['recycle'],
      label: 'Begins anew after',
      unit: 's',
      minimum: 0.1,
      maximum: 3600,
      none: 'stays down',
    },
    {
      path: ['sleepBeyond'],
      label: 'Rests beyond',
      unit: 'm',
      minimum: 1,
      maximum: 10_000,
      none: 'never rests',
    },
  ];
}

/** Minds beside the main one, such as one that only aims. */
function MoreMinds({ cast, editor }: { cast: CastEditor; editor: KindEditor }) {
  const { kind, of, put } = editor;
  const { minds } = cast.document;
  const more = kind.minds ?? [];
  const set = (list: string[]) => put(['minds'], list.length > 0 ? list : undefined);
  const free = namesOf(minds).filter((name) => name !== kind.mind && !more.includes(name));
  return (
    <Row label="Beside it">
      {more.map((name) => (
        <span key={name} style={{ whiteSpace: 'nowrap' }}>
          {minds[name]?.title ?? name}
          <RemoveButton
            label={`${of} no longer has the mind ${minds[name]?.title ?? name}`}
            onPress={() => set(more.filter((other) => other !== name))}
          />
        </span>
      ))}
      {free.length > 0 && more.length < 4 && (
        <Choice
          label={`Another mind for ${of}`}
          value="add"
          options={[
            { id: 'add', title: more.length > 0 ? '+' : 'no other mind' },
            ...free.map((id) => ({ id, title: minds[id].title })),
          ]}
          onChoose={(id) => id !== 'add' && set([...more, id])}
        />
      )}
      <OwnMark editor={editor} path={['minds']} label="Minds beside" usual="its archetype’s" />
    </Row>
  );
}

/** Everything that makes a kind of agent: for an archetype what all have, for an agent where it differs. */
export function KindForm({ cast, editor }: { cast: CastEditor; editor: KindEditor }) {
  const { document } = cast;
  const { kind } = editor;
  const titled = (record: Record<string, { title?: string }>) =>
    namesOf(record).map((id) => ({ id, title: record[id].title ?? id }));
  return (
    <>
      <section aria-label="Mind and side">
        <h3>Mind and side</h3>
        <Rows>
          <KindChoice
            editor={editor}
            path={['mind']}
            label="Mind"
            options={titled(document.minds)}
            none="none"
          />
          <MoreMinds cast={cast} editor={editor} />
          <KindNumber
            editor={editor}
            path={['reaction']}
            label="Reaction"
            unit="s"
            minimum={0}
            maximum={5}
            fallback={0}
          />
          <KindChoice
            editor={editor}
            path={['faction']}
            label="Faction"
            options={factionNames(document).map((id) => ({
              id,
              title: factionTitle(document, id),
            }))}
          />
          {!editor.base && (
            <KindChoice
              editor={editor}
              path={['squad']}
              label="Squad"
              options={titled(document.squads ?? {})}
              none="none"
            />
          )}
        </Rows>
      </section>
      <section aria-label="Body">
        <h3>Body</h3>
        <Rows>
          {bodyNumbers(kind).map((field) => (
            <KindNumber key={field.label} editor={editor} {...field} />
          ))}
          <KindChoice
            editor={editor}
            path={['gait']}
            label="Usual gait"
            options={namesOf(kind.gaits).map((id) => ({ id, title: id }))}
          />
        </Rows>
        <GaitTable editor={editor} />
      </section>
      <SenseFields editor={editor} />
    </>
  );
}
