import { Copy, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useAppDispatch } from '../../app/store.ts';
import { perform } from '../../project/perform.ts';
import { Button, QuietButton, Toggle } from '../../ui/button.tsx';
import { checkNumber, InlineText } from '../../ui/inline-text.tsx';
import { Menu } from '../../ui/menu.tsx';
import { FIELDS, withField, type PartField } from './part-fields.ts';
import { partAt, SINGULAR, titleOf, type AnyPart, type PartRef } from './parts.ts';
import type { GroundEditor } from './use-ground-editor.ts';

const Column = styled.aside`
  overflow: auto;
  padding: 12px 14px;
  border-left: 1px solid var(--line);
  h2 {
    font: 600 1.2rem var(--title);
    margin-bottom: 2px;
  }
  > code,
  > p {
    color: var(--mute);
  }
`;

const Rows = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 3px 10px;
  margin: 10px 0;
  align-items: baseline;
  dt {
    color: var(--mute);
  }
  dd {
    margin: 0;
  }
`;

const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt>{label}</dt>
      <dd>{children}</dd>
    </>
  );
}

function NumberField({
  label,
  of,
  value,
  unit,
  minimum,
  maximum,
  onCommit,
}: {
  label: string;
  of: string;
  value: number;
  unit: string;
  minimum: number;
  maximum: number;
  onCommit: (value: number) => void;
}) {
  return (
    <Row label={label}>
      <InlineText
        mono
        label={`${label} of ${of}`}
        value={String(value)}
        check={checkNumber(minimum, maximum)}
        onCommit={(text) => onCommit(Number(text))}
      />
      {unit && <span style={{ color: 'var(--mute)' }}> {unit}</span>}
    </Row>
  );
}

function Field({
  editor,
  field,
  part,
  of,
  onChange,
}: {
  editor: GroundEditor;
  field: PartField;
  part: AnyPart;
  of: string;
  onChange: (part: AnyPart) => void;
}) {
  if (field.kind === 'number') {
    const value = (part[field.id] as number | undefined) ?? field.fallback?.(part) ?? 0;
    return (
      <NumberField
        {...field}
        of={of}
        value={value}
        onCommit={(next) => onChange(withField(part, field, next))}
      />
    );
  }
  if (field.kind === 'flag') {
    return (
      <Row label={field.label}>
        <Toggle
          aria-label={`${field.label}: ${of}`}
          isSelected={part[field.id] === true}
          onChange={(on) => onChange(withField(part, field, on || undefined))}
        >
          {part[field.id] === true ? 'yes' : 'no'}
        </Toggle>
      </Row>
    );
  }
  const options = field.options(editor.document, editor.ground);
  const value = part[field.id] as string | undefined;
  const shown = value ?? field.fallback ?? field.none ?? '—';
  const none = field.none
    ? [
        {
          id: '',
          text: field.none,
          label: field.none,
          onAction: () => onChange(withField(part, field, undefined)),
        },
      ]
    : [];
  return (
    <Row label={field.label}>
      <Menu
        label={`${field.label} of ${of}`}
        entries={[
          ...none,
          ...options.map((option) => ({
            id: option,
            text: option,
            label: option,
            onAction: () => onChange(withField(part, field, option)),
          })),
        ]}
      >
        <QuietButton
          aria-label={`${field.label} of ${of}: ${shown}. Choose`}
          style={{ minHeight: 22 }}
        >
          {shown}
        </QuietButton>
      </Menu>
    </Row>
  );
}

function PlaceFields({
  part,
  of,
  onChange,
}: {
  part: AnyPart;
  of: string;
  onChange: (part: AnyPart) => void;
}) {
  const { at, size } = part;
  if (!at) return null;
  const coordinate = (label: string, index: 0 | 1) => (
    <NumberField
      label={label}
      of={of}
      value={at[index]}
      unit="m"
      minimum={0}
      maximum={1000}
      onCommit={(value) => onChange({ ...part, at: index === 0 ? [value, at[1]] : [at[0], value] })}
    />
  );
  const extent = (label: string, index: 0 | 1) =>
    size && (
      <NumberField
        label={label}
        of={of}
        value={size[index]}
        unit="m"
        minimum={0.05}
        maximum={1000}
        onCommit={(value) =>
          onChange({ ...part, size: index === 0 ? [value, size[1]] : [size[0], value] })
        }
      />
    );
  return (
    <>
      {coordinate('x', 0)}
      {coordinate('y', 1)}
      {extent('Width', 0)}
      {extent('Depth', 1)}
    </>
  );
}

function Waypoints({
  part,
  of,
  onChange,
}: {
  part: AnyPart;
  of: string;
  onChange: (part: AnyPart) => void;
}) {
  const points = part.points ?? [];
  return (
    <>
      {points.map((point, i) => (
        <Row key={i} label={`Waypoint ${i + 1}`}>
          {[0, 1].map((axis) => (
            <InlineText
              key={axis}
              mono
              label={`${axis === 0 ? 'x' : 'y'} of waypoint ${i + 1} of ${of}`}
              value={String(point[axis])}
              check={checkNumber(0, 1000)}
              onCommit={(text) =>
                onChange({
                  ...part,
                  points: points.map((other, n) =>
                    n !== i
                      ? other
                      : axis === 0
                        ? [Number(text), other[1]]
                        : [other[0], Number(text)],
                  ),
                })
              }
            />
          ))}
          {points.length > 2 && (
            <QuietButton
              aria-label={`Remove waypoint ${i + 1} of ${of}`}
              style={{ minHeight: 20 }}
              onPress={() => onChange({ ...part, points: points.filter((_, n) => n !== i) })}
            >
              <Trash2 size={12} />
            </QuietButton>
          )}
        </Row>
      ))}
    </>
  );
}

/** Whether the keyboard drives the agent from the start. */
function PlayedField({ editor, name }: { editor: GroundEditor; name: string }) {
  const dispatch = useAppDispatch();
  const played = editor.document.start.play === name;
  return (
    <Row label="Played by you">
      <Toggle
        aria-label={`Played by you: ${name}`}
        isSelected={played}
        onChange={(on) =>
          editor.setTrouble(
            dispatch(perform({ command: 'changeStart', change: { play: on ? name : undefined } })),
          )
        }
      >
        {played ? 'yes' : 'no'}
      </Toggle>
    </Row>
  );
}

function PartForm({ editor, target }: { editor: GroundEditor; target: PartRef }) {
  const part = partAt(editor.ground, target)!;
  const of = titleOf(editor.ground, target);
  const change = (next: AnyPart) => void editor.put(target, next);
  return (
    <>
      <h2>{of}</h2>
      <code>
        {SINGULAR[target.kind]}
        {target.kind === 'walls' ? '' : ` ${target.name}`}
      </code>
      <Rows>
        {target.kind !== 'walls' && (
          <Row label="Title">
            <InlineText
              label={`Title of ${of}`}
              value={part.title ?? ''}
              placeholder={target.name}
              check={(text) => (text.length > 80 ? 'It takes at most 80 characters.' : null)}
              onCommit={(text) => {
                const { title: _, ...rest } = part;
                change(text === '' ? rest : { ...part, title: text });
              }}
            />
          </Row>
        )}
        <PlaceFields part={part} of={of} onChange={change} />
        {FIELDS[target.kind].map((field) => (
          <Field
            key={field.id}
            editor={editor}
            field={field}
            part={part}
            of={of}
            onChange={change}
          />
        ))}
        {target.kind === 'agents' && <PlayedField editor={editor} name={target.name} />}
        {target.kind === 'routes' && <Waypoints part={part} of={of} onChange={change} />}
      </Rows>
    </>
  );
}

function GroundForm({ editor }: { editor: GroundEditor }) {
  const dispatch = useAppDispatch();
  const { ground, name } = editor;
  const set = (change: { title?: string; width?: number; height?: number; light?: number }) =>
    editor.setTrouble(dispatch(perform({ command: 'changeGround', ground: name, change })));
  return (
    <>
      <h2>{ground.title}</h2>
      <p>Choose a part, or a tool to place one.</p>
      <Rows>
        <Row label="Title">
          <InlineText
            label="Title of the ground"
            value={ground.title}
            check={(text) =>
              text.trim() === '' || text.length > 80 ? 'It takes 1 to 80 characters.' : null
            }
            onCommit={(title) => set({ title: title.trim() })}
          />
        </Row>
        <NumberField
          label="Width"
          of="the ground"
          value={ground.width}
          unit="m"
          minimum={2}
          maximum={1000}
          onCommit={(width) => set({ width })}
        />
        <NumberField
          label="Depth"
          of="the ground"
          value={ground.height}
          unit="m"
          minimum={2}
          maximum={1000}
          onCommit={(height) => set({ height })}
        />
        <NumberField
          label="Light everywhere"
          of="the ground"
          value={ground.light ?? 1}
          unit=""
          minimum={0}
          maximum={1}
          onCommit={(light) => set({ light })}
        />
      </Rows>
    </>
  );
}

/** The numbers of what is chosen; of the ground itself where nothing is. */
export function Inspector({ editor, children }: { editor: GroundEditor; children: ReactNode }) {
  const { chosen } = editor;
  return (
    <Column aria-label="Chosen">
      {chosen.length === 0 && <GroundForm editor={editor} />}
      {chosen.length === 1 && <PartForm editor={editor} target={chosen[0]} />}
      {chosen.length > 1 && (
        <>
          <h2>{chosen.length} parts</h2>
          <p>{chosen.map((ref) => titleOf(editor.ground, ref)).join(', ')}</p>
        </>
      )}
      {chosen.length > 0 && (
        <Buttons>
          <Button onPress={editor.duplicate} aria-label="Duplicate (Ctrl+D)">
            <Copy size={13} /> Duplicate
          </Button>
          <Button onPress={editor.remove} aria-label="Remove (Delete)">
            <Trash2 size={13} /> Remove
          </Button>
        </Buttons>
      )}
      {children}
    </Column>
  );
}
