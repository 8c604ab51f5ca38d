import {
  MEMORY_FIELDS,
  MEMORY_SCOPES,
  MEMORY_TYPES,
  namesOf,
  UNITS,
  type MemoryKeyDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { useRef } from 'react';
import styled from 'styled-components';
import { useDrawing } from '../../engine/use-engine.tsx';
import { useDeclareKey } from '../../expression/declare-key.tsx';
import { useProject } from '../../state/store.ts';
import { useEdit, type Editing } from '../../state/use-edit.ts';
import { useTokens } from '../../theme/use-tokens.ts';
import { QuietButton, RemoveButton } from '../../ui/button.tsx';
import { sharpCanvas } from '../../ui/canvas.ts';
import { checkName, checkTitle, Choice } from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { checkNumber, OptionalNumberText, readNumber } from '../../ui/fields/number-text.tsx';
import { CopyButton } from '../copy-button.tsx';
import { memoryText } from './memory-text.ts';
import { Mentions, useMentions } from '../mentions.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { PartTitle, Sheet, Trouble } from '../sheet-layout.ts';
import { writeText } from '../../ui/timing/write-live.ts';
import { TierValues } from '../../project/tier-values.tsx';

const Keys = styled.ul`
  margin-top: 6px;
`;

const Key = styled.li`
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) 148px 28px;
  gap: 2px 10px;
  padding: 6px 2px;
  border-bottom: 1px solid var(--line);
  &:focus-within {
    background: color-mix(in srgb, var(--raised) 45%, transparent);
  }
  small {
    color: var(--mute);
    font-size: 1em;
  }
  canvas {
    width: 148px;
    height: 18px;
  }
  > div:first-child {
    grid-row: 1 / 3;
    display: flex;
    flex-direction: column;
    align-items: start;
  }
`;

const Live = styled.div`
  grid-column: 3;
  grid-row: 1 / 3;
  font-family: var(--mono);
  overflow-wrap: anywhere;
`;

/** Values of a key a line shows. */
const KEPT = 120;

/** A key's value in the followed agent, its age, and for numbers the last few hundred ticks as a line. */
function LiveValue({ name, isNumber }: { name: string; isNumber: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const past = useRef<{ tick: number; value: number }[]>([]);
  const tokens = useTokens();
  useDrawing(({ frame }) => {
    if (!box.current || !frame) return;
    const entry = frame.readout?.memory.find(({ key }) => key === name);
    writeText(box.current.querySelector('span'), memoryText(entry));
    const canvas = box.current.querySelector('canvas');
    if (!canvas || !entry) return;
    const values = past.current.filter(({ tick }) => tick < frame.tick);
    values.push({ tick: frame.tick, value: Number.parseFloat(entry.value) });
    past.current = values.slice(-KEPT);
    drawLine(canvas, past.current, tokens.ember);
  });
  return (
    <Live ref={box} aria-live="off">
      <span />
      {isNumber && <canvas aria-hidden="true" />}
    </Live>
  );
}

function drawLine(
  canvas: HTMLCanvasElement,
  values: readonly { value: number }[],
  colour: string,
): void {
  const sharp = sharpCanvas(canvas);
  if (!sharp) return;
  const { context, width, height } = sharp;
  context.clearRect(0, 0, width, height);
  const known = values.filter(({ value }) => Number.isFinite(value));
  if (known.length < 2) return;
  const [low, high] = [Math.min, Math.max].map((of) => of(...known.map(({ value }) => value)));
  context.strokeStyle = colour;
  context.beginPath();
  values.forEach(({ value }, i) => {
    if (!Number.isFinite(value)) return;
    const x = (i / (KEPT - 1)) * width;
    const y = height - 2 - ((value - low) / (high - low || 1)) * (height - 4);
    if (i === 0) context.moveTo(x, y);
    else context.lineTo(x, y);
  });
  context.stroke();
}

const FLAGS = [
  { id: '', title: 'false' },
  { id: 'true', title: 'true' },
];

/** What a key holds before anything is remembered. */
function Default({
  name,
  memoryKey,
  set,
}: {
  name: string;
  memoryKey: MemoryKeyDocument;
  set: (value: unknown) => void;
}) {
  const { type, default: given } = memoryKey;
  const label = `default of ${name}`;
  if (type === 'flag')
    return (
      <span>
        <small>at first </small>
        <Choice
          label={label}
          value={given === true ? 'true' : ''}
          options={FLAGS}
          onChoose={(id) => set(id === 'true' ? true : undefined)}
        />
      </span>
    );
  if (type !== 'number' && type !== 'text') return <small>at first nothing</small>;
  const check = checkNumber({ minimum: -1e9, maximum: 1e9 });
  return (
    <span>
      <small>at first </small>
      <InlineText
        mono
        label={label}
        value={given === undefined ? '' : String(given)}
        placeholder="nothing"
        check={(text) => (type === 'text' || text.trim() === '' ? null : check(text))}
        onCommit={(text) =>
          set(text.trim() === '' ? undefined : type === 'text' ? text : readNumber(text))
        }
      />
    </span>
  );
}

/** How a number changes by itself, and between what. */
function OfNumber({
  name,
  path,
  memoryKey,
  set,
}: {
  name: string;
  path: string;
  memoryKey: MemoryKeyDocument;
  set: (field: string, value: unknown) => void;
}) {
  const text = (field: 'rate' | 'min' | 'max', label: string, placeholder: string) => (
    <span>
      <OptionalNumberText
        label={label}
        about={MEMORY_FIELDS[field].about}
        spec={MEMORY_FIELDS[field]}
        value={memoryKey[field]}
        placeholder={placeholder}
        onCommit={(value) => set(field, value)}
      />
      <TierValues path={`${path}.${field}`} />
    </span>
  );
  return (
    <>
      <span>
        <small>changes by </small>
        {text('rate', `change of ${name} a second`, 'nothing')}
        {memoryKey.rate !== undefined && <small> a second</small>}
      </span>{' '}
      <span>
        <small>between </small>
        {text('min', `minimum of ${name}`, 'any')}
        <small> and </small>
        {text('max', `maximum of ${name}`, 'any')}
      </span>{' '}
    </>
  );
}

function KeyRow({ mind, name, editing }: { mind: string; name: string; editing: Editing }) {
  const memory = useProject(({ document }) => document.minds[mind].memory!);
  const { run, put } = editing;
  const key = memory[name];
  const { title, type, unit, scope = 'self', forgetAfter, capacity, note } = key;
  const mentions = useMentions(mind, 'memory', name);
  const path = `minds.${mind}.memory.${name}`;
  const set = (field: string, value: unknown) => put(['minds', mind, 'memory', name, field], value);
  const isList = type.startsWith('list');
  return (
    <Key>
      <div>
        <InlineText
          label={`title of the key ${name}`}
          value={title ?? ''}
          placeholder="no title"
          check={(text) => checkTitle(text, true)}
          onCommit={(text) => set('title', text.trim() || undefined)}
        />
        <InlineText
          mono
          label={`name of the key ${name}`}
          value={name}
          check={checkName(name, memory)}
          onCommit={(to) => run({ command: 'renameInMind', mind, part: 'memory', name, to })}
        />
      </div>
      <div>
        <Choice
          label={`type of ${name}`}
          value={type}
          options={MEMORY_TYPES.map((id) => ({ id, title: id }))}
          onChoose={(id) => set('type', id)}
        />
        {type.endsWith('number') && (
          <Choice
            label={`unit of ${name}`}
            value={unit ?? ''}
            options={[
              { id: '', title: 'no unit' },
              ...UNITS.map((id) => ({ id, title: id === 'deg' ? '°' : id })),
            ]}
            onChoose={(id) => set('unit', id || undefined)}
          />
        )}
        <Choice
          label={`whose ${name} is`}
          value={scope}
          options={MEMORY_SCOPES.map((id) => ({
            id,
            title: { self: 'the agent’s own', squad: 'the squad’s', world: 'all agents’' }[id],
          }))}
          onChoose={(id) => set('scope', id === 'self' ? undefined : id)}
        />{' '}
        {!isList && <Default name={name} memoryKey={key} set={(value) => set('default', value)} />}{' '}
        <span>
          <small>forgotten after </small>
          <OptionalNumberText
            label={`seconds after which ${name} is forgotten`}
            about={MEMORY_FIELDS.forgetAfter.about}
            spec={MEMORY_FIELDS.forgetAfter}
            value={forgetAfter}
            placeholder="never"
            onCommit={(value) => set('forgetAfter', value)}
          />
          {forgetAfter !== undefined && <small> s</small>}
          <TierValues path={`${path}.forgetAfter`} />
        </span>{' '}
        {type === 'number' && <OfNumber name={name} path={path} memoryKey={key} set={set} />}
        {isList && (
          <span>
            <small>at most </small>
            <OptionalNumberText
              label={`most entries of ${name}`}
              about={MEMORY_FIELDS.capacity.about}
              spec={MEMORY_FIELDS.capacity}
              value={capacity}
              placeholder={String(MEMORY_FIELDS.capacity.usual)}
              onCommit={(value) => set('capacity', value)}
            />
            <small> entries</small>
          </span>
        )}
        <div>
          <small>
            <NoteText
              label={`note on ${name}`}
              note={note}
              onCommit={(text) => set('note', text)}
            />
          </small>
        </div>
        <div>
          <Mentions verb="written" mentions={mentions.filter(({ how }) => how === 'writes')} />
          {' · '}
          <Mentions verb="read" mentions={mentions.filter(({ how }) => how === 'reads')} />
        </div>
        <RowFindings path={`minds.${mind}.memory.${name}`} />
      </div>
      <LiveValue name={name} isNumber={type === 'number'} />
      <div>
        <CopyButton what={`the key ${name}`} mind={mind} content={{ keys: [name] }} quiet />
        <RemoveButton
          label={`Remove the key ${name}`}
          onPress={() => put(['minds', mind, 'memory', name], undefined)}
        />
      </div>
    </Key>
  );
}

/** What a mind remembers: each key with its type, whose it is, its value now, and who reads and writes it. */
export function MemorySheet({ mind }: { mind: string }) {
  const document = useProject((project) => project.document.minds[mind]);
  const editing = useEdit();
  const { ask, dialog } = useDeclareKey(mind);
  const names = namesOf(document?.memory ?? {});
  return (
    <Sheet aria-label={`Memory of ${document?.title ?? mind}`}>
      <PartTitle>Memory of {document?.title ?? mind}</PartTitle>
      {names.length === 0 && (
        <p style={{ color: 'var(--mute)' }}>
          Nothing yet. A key holds what the mind remembers: its target, where it saw them last, how
          often it gave up.
        </p>
      )}
      <Keys aria-label="Keys">
        {names.map((name) => (
          <KeyRow key={name} mind={mind} name={name} editing={editing} />
        ))}
      </Keys>
      {editing.trouble && <Trouble role="alert">{editing.trouble}</Trouble>}
      <QuietButton onPress={() => ask({ onDeclared: () => {} })} style={{ marginTop: 6 }}>
        <Plus size={14} /> Declare a key
      </QuietButton>
      {dialog}
    </Sheet>
  );
}
