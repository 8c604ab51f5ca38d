import { GROUND_FIELDS, namesOf, numberOf, pathText, PLACE, SIZE } from '@crooked-lantern/core';
import { Copy, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useAppDispatch } from '../../state/store.ts';
import { perform } from '../../state/perform.ts';
import { Button, RemoveButton } from '../../ui/button.tsx';
import { checkTitle, FlagField, NumberField, Row, Rows } from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import { TierValues } from '../../project/tier-values.tsx';
import { PartName } from '../../project/part-name.tsx';
import { GameForm } from './game/game-form.tsx';
import { shortWords, spawnsOf, waveWords } from './game/wave-words.ts';
import { PartFieldRow } from './part-field-row.tsx';
import { FIELDS } from './part-fields.ts';
import { partAt, SINGULAR, titleOf, type AnyPart, type PartRef } from './parts.ts';
import type { GroundEditor } from './use-ground-editor.ts';
import { runInBackground } from '../../state/failures.ts';

const Column = styled.aside`
  overflow: auto;
  scrollbar-gutter: stable;
  padding: 12px 14px;
  h2 {
    font: 600 1.2rem var(--title);
    margin-bottom: 2px;
  }
  > p {
    color: var(--mute);
  }
`;

const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;

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
      spec={PLACE}
      label={label}
      of={of}
      value={at[index]}
      onCommit={(value) => onChange({ ...part, at: index === 0 ? [value, at[1]] : [at[0], value] })}
    />
  );
  const extent = (label: string, index: 0 | 1) =>
    size && (
      <NumberField
        spec={SIZE}
        label={label}
        of={of}
        value={size[index]}
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
            <NumberText
              key={axis}
              label={`${axis === 0 ? 'x' : 'y'} of waypoint ${i + 1} of ${of}`}
              spec={PLACE}
              value={point[axis]}
              onCommit={(value) =>
                onChange({
                  ...part,
                  points: points.map((other, n) =>
                    n !== i ? other : axis === 0 ? [value, other[1]] : [other[0], value],
                  ),
                })
              }
            />
          ))}
          {points.length > 2 && (
            <RemoveButton
              label={`Remove waypoint ${i + 1} of ${of}`}
              onPress={() => onChange({ ...part, points: points.filter((_, n) => n !== i) })}
            />
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
    <FlagField
      label="Played by you"
      of={name}
      value={played}
      onChange={(on) =>
        editor.setTrouble(
          dispatch(perform({ command: 'changeStart', change: { play: on ? name : undefined } })),
        )
      }
    />
  );
}

/** The waves that come in at a spawn place. */
function WavesHere({ editor, spawn }: { editor: GroundEditor; spawn: string }) {
  const { document, ground } = editor;
  const here = namesOf(ground.waves ?? {}).filter((wave) =>
    spawnsOf(ground.waves![wave], ground).includes(spawn),
  );
  return (
    <Row label="Waves">
      {here.length === 0 && 'none'}
      {here.map((wave) => (
        <p key={wave}>
          {shortWords(wave, ground.waves![wave])}: {waveWords(ground.waves![wave], document)}
        </p>
      ))}
    </Row>
  );
}

function PartForm({ editor, target }: { editor: GroundEditor; target: PartRef }) {
  const part = partAt(editor.ground, target)!;
  const of = titleOf(editor.ground, target);
  const { kind, name } = target;
  const path = pathText(['grounds', editor.name, kind, kind === 'walls' ? Number(name) : name]);
  const change = (next: AnyPart) => runInBackground(editor.put(target, next));
  return (
    <>
      <h2>{of}</h2>
      <p>
        {SINGULAR[target.kind]}{' '}
        {target.kind !== 'walls' && (
          <PartName
            label={`Name of ${of} in the file`}
            part={target.kind}
            name={target.name}
            onRenamed={(name) => editor.choose([{ kind: target.kind, name }])}
          />
        )}
      </p>
      <Rows>
        {target.kind !== 'walls' && (
          <Row label="Title">
            <InlineText
              label={`Title of ${of}`}
              value={part.title ?? ''}
              placeholder={target.name}
              check={(text) => checkTitle(text, true)}
              onCommit={(text) => {
                const { title: _, ...rest } = part;
                change(text === '' ? rest : { ...part, title: text });
              }}
            />
          </Row>
        )}
        <PlaceFields part={part} of={of} onChange={change} />
        {FIELDS[target.kind].map((field) => (
          <PartFieldRow
            key={field.id}
            document={editor.document}
            ground={editor.ground}
            field={field}
            part={part}
            of={of}
            path={path}
            onChange={change}
          />
        ))}
        {target.kind === 'spawns' && <WavesHere editor={editor} spawn={target.name} />}
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
            check={(text) => checkTitle(text)}
            onCommit={(title) => set({ title: title.trim() })}
          />{' '}
          <PartName label="Name of the ground in the file" part="grounds" name={name} />
        </Row>
        <NumberField
          spec={GROUND_FIELDS.width}
          of="the ground"
          value={ground.width}
          onCommit={(width) => set({ width })}
        />
        <NumberField
          spec={GROUND_FIELDS.height}
          label="Depth"
          of="the ground"
          value={ground.height}
          onCommit={(height) => set({ height })}
        />
        <NumberField
          spec={GROUND_FIELDS.light}
          label="Light everywhere"
          of="the ground"
          value={numberOf(ground, 'light', GROUND_FIELDS.light)}
          onCommit={(light) => set({ light })}
        >
          <TierValues path={`grounds.${name}.light`} />
        </NumberField>
      </Rows>
      <GameForm name={name} ground={ground} />
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
