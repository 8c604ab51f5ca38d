import { Undo2 } from 'lucide-react';
import { FIELDS } from '../ground/editor/part-fields.ts';
import { PartFieldRow } from '../ground/editor/part-field-row.tsx';
import type { AnyPart } from '../ground/editor/parts.ts';
import { useTokens } from '../theme/use-tokens.ts';
import { Button, Jump } from '../ui/button.tsx';
import { checkTitle, Row, Rows } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { factionTint } from './factions.ts';
import { FindingsHere } from './findings-here.tsx';
import { AgentGlyph } from './glyphs.tsx';
import { KindForm } from './kind-form.tsx';
import { overridden } from './kind-values.ts';
import { Buttons, FormColumn, Sort, Title, Trouble } from './layout.ts';
import { agentEditor, type CastEditor } from './use-cast.ts';
import { runInBackground } from '../state/failures.ts';

/** One agent on the ground: where it belongs, and where it differs from its archetype. */
export function AgentForm({ cast }: { cast: CastEditor }) {
  const { document, selection, select, change, agents, trouble } = cast;
  const tokens = useTokens();
  const { name } = selection;
  const editor = agentEditor(cast, name);
  const placed = agents[name];
  if (!editor || !placed) return null;
  const ground = document.grounds[document.start.ground];
  const { of, kind, base } = editor;
  const put = (part: AnyPart, what: string) =>
    runInBackground(
      change({
        command: 'changeParts',
        ground: document.start.ground,
        changes: [{ part: 'agents', name, value: part as never }],
        what,
      }),
    );
  const own = overridden(placed.overrides).length;
  return (
    <FormColumn aria-label={`Agent ${of}`}>
      <Title>
        <InlineText
          label={`Title of ${of}`}
          value={placed.title ?? ''}
          placeholder={name}
          check={(text) => checkTitle(text, true)}
          onCommit={(title) => {
            const { title: _, ...rest } = placed;
            put(title === '' ? rest : { ...rest, title }, `title of ${of}`);
          }}
        />
      </Title>
      <Sort>
        <AgentGlyph tint={factionTint(document, kind.faction, tokens.factions)} /> Placed agent,
        made from{' '}
        <Jump type="button" onClick={() => select('archetypes', placed.archetype)}>
          {base?.title}
        </Jump>
        <code>{name}</code>
      </Sort>
      <p>
        {own === 0
          ? `All as in ${base?.title}. What you change here is its own.`
          : `${own} ${own === 1 ? 'value is' : 'values are'} its own; the rest follows ${base?.title}.`}
      </p>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      {own > 0 && (
        <Buttons>
          <Button
            onPress={() => {
              const { overrides: _, ...rest } = placed;
              put(rest, `${of} as its archetype`);
            }}
          >
            <Undo2 size={13} /> All as in {base?.title}
          </Button>
        </Buttons>
      )}
      <FindingsHere path={editor.path} />
      <section aria-label="Placed">
        <h3>Placed</h3>
        <Rows>
          <Row label="Stands at">
            <code>
              {placed.at[0]}, {placed.at[1]}
            </code>{' '}
            m
          </Row>
          {FIELDS.agents.map((field) => (
            <PartFieldRow
              key={field.id}
              document={document}
              ground={ground}
              field={field}
              part={placed as unknown as AnyPart}
              of={of}
              path={`grounds.${document.start.ground}.agents.${name}`}
              onChange={(part) => put(part, of)}
            />
          ))}
        </Rows>
      </section>
      <KindForm cast={cast} editor={editor} />
    </FormColumn>
  );
}
