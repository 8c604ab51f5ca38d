import { ARCHETYPE_FIELDS, BODY_FIELDS, IMPERFECTION_FIELDS, namesOf } from '@crooked-lantern/core';
import { RemoveButton } from '../ui/button.tsx';
import { Choice, Row, Rows } from '../ui/fields/fields.tsx';
import { factionNames, factionTitle } from './factions.ts';
import { FightSections } from './fight-sections.tsx';
import { GaitTable } from './gait-table.tsx';
import { KindChoice, KindNumber, kindNumbers, OwnMark } from './kind-field.tsx';
import { SenseFields } from './sense-fields.tsx';
import type { CastEditor, KindEditor } from './use-cast.ts';

const IMPERFECT = kindNumbers([], IMPERFECTION_FIELDS);
const BODY = [...kindNumbers(['body'], BODY_FIELDS), ...kindNumbers([], ARCHETYPE_FIELDS)];

/** Other minds than the first, such as one that only aims. */
function MoreMinds({ cast, editor }: { cast: CastEditor; editor: KindEditor }) {
  const { kind, of, put } = editor;
  const { minds } = cast.document;
  const more = kind.minds ?? [];
  const set = (list: string[]) => put(['minds'], list.length > 0 ? list : undefined);
  const free = namesOf(minds).filter((name) => name !== kind.mind && !more.includes(name));
  return (
    <Row label="Other minds">
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
      <OwnMark editor={editor} path={['minds']} label="Other minds" usual="its archetype’s" />
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
          {IMPERFECT.map(({ path, spec }) => (
            <KindNumber key={path.join('.')} editor={editor} path={path} spec={spec} />
          ))}
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
          {BODY.map((field) => (
            <KindNumber key={field.spec.label} editor={editor} {...field} />
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
      <FightSections editor={editor} />
      <SenseFields editor={editor} />
    </>
  );
}
