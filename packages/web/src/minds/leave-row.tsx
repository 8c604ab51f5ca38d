import { TRANSITION_FIELDS } from '@crooked-lantern/core';
import type { ActionDocument, DocumentCommand, TransitionDocument } from '@crooked-lantern/core';
import { Ellipsis } from 'lucide-react';
import { useRef } from 'react';
import styled from 'styled-components';
import { useAppDispatch, useProject } from '../state/store.ts';
import { useDrawing } from '../engine/use-engine.tsx';
import { perform } from '../state/perform.ts';
import { QuietButton } from '../ui/button.tsx';
import { InlineText } from '../ui/inline-text.tsx';
import { NumberText } from '../ui/number-text.tsx';
import { Menu, type MenuEntry } from '../ui/menu.tsx';
import { ActionLine, useActionEntries } from './action-line.tsx';
import { listStates, titleOf } from './document-names.ts';
import { ExpressionField } from '../expression/expression-field.tsx';
import { RowFindings } from './row-findings.tsx';
import { RowBody, RowName, SheetRow } from './sheet-layout.ts';

const Row = styled(SheetRow)`
  grid-template-columns: 86px minmax(0, 1fr) 96px 128px auto;
  @media (max-width: 700px) {
    grid-template-columns: 86px minmax(0, 1fr) auto;
  }
`;

const Small = styled.span`
  color: var(--mute);
`;

const Live = styled.span`
  padding: 3px 2px 0 0;
  overflow-wrap: anywhere;
  text-align: right;
  font-family: var(--mono);
  color: var(--mute);
  &[data-holds='true'] {
    color: var(--done);
  }
  &[data-holds='wait'] {
    color: var(--lampText);
  }
  &[data-holds='false'] b {
    color: var(--refuse);
  }
  b {
    font-weight: 400;
  }
`;

/** The guard's worth now, written straight to the page: it may change every frame. */
function LiveGuard({ index }: { index: number }) {
  const box = useRef<HTMLSpanElement>(null);
  useDrawing(({ frame }) => {
    const state = frame?.readout?.state;
    const leave = state?.leaves[index];
    if (!box.current) return;
    const [verdict, text] = box.current.children;
    if (!state || !leave) {
      box.current.dataset.holds = '';
      verdict.textContent = '';
      text.textContent = '';
      return;
    }
    const waiting = leave.wait && leave.holds && state.active;
    box.current.dataset.holds = waiting ? 'wait' : String(leave.holds);
    // While its time runs the time is what one waits for; before that the values are.
    const running =
      leave.wait && state.active && (leave.wait.what === 'after' || leave.wait.done > 0);
    verdict.textContent = leave.text === '' || running ? '' : `${leave.holds}`;
    text.textContent = running
      ? `${leave.wait!.done.toFixed(1)} / ${Number(leave.wait!.of.toFixed(2))} s`
      : ` ${leave.text}`;
  });
  return (
    <Live ref={box} aria-live="off" data-testid={`live-${index + 1}`}>
      <b />
      <span />
    </Live>
  );
}

export interface LeaveRowProps {
  mind: string;
  state: string;
  title: string;
  leave: TransitionDocument;
  index: number;
  count: number;
  path: string;
}

export function LeaveRow({ mind, state, title, leave, index, count, path }: LeaveRowProps) {
  const dispatch = useAppDispatch();
  const document = useProject((project) => project.document);
  const where = `transition ${index + 1} of ${title}`;
  const run = (command: DocumentCommand) => dispatch(perform(command));
  const change = (fields: Partial<TransitionDocument>) =>
    run({ command: 'changeTransition', mind, state, index, change: fields });
  const doing = leave.do ?? [];
  const setDoing = (actions: ActionDocument[]) =>
    change({ do: actions.length > 0 ? actions : undefined });
  const { entries: actions, dialog } = useActionEntries(mind, false, (action) =>
    setDoing([...doing, action]),
  );
  const states = listStates(document, mind);
  const target = states.find((listed) => listed.state.id === leave.to);
  const targets: MenuEntry[] = states.map(({ state: { id }, state: listed, around }) => ({
    id,
    text: titleOf(listed),
    label: `${'  '.repeat(around.length)}${titleOf(listed)}`,
    onAction: () => change({ to: id }),
  }));
  const entries: MenuEntry[] = [
    ...(leave.when === undefined
      ? [entry('add-when', 'Add a guard', () => change({ when: 'time > 0' }))]
      : [
          entry('drop-when', 'Remove the guard', () => change({ when: undefined, for: undefined })),
        ]),
    ...(leave.on === undefined
      ? [entry('add-on', 'Wait for an event: done', () => change({ on: 'done' }))]
      : [entry('drop-on', 'Remove the event', () => change({ on: undefined }))]),
    ...(leave.when === undefined
      ? []
      : leave.for === undefined
        ? [entry('add-for', 'Hold for a time', () => change({ for: 0.5 }))]
        : [entry('drop-for', 'Remove “for”', () => change({ for: undefined }))]),
    ...(leave.after === undefined
      ? [entry('add-after', 'Only after a time', () => change({ after: 1 }))]
      : [entry('drop-after', 'Remove “after”', () => change({ after: undefined }))]),
    { id: 'do', text: 'Do when taken', label: 'Do when taken', entries: actions },
    entry('urgent', leave.urgent ? 'Not urgent' : 'Urgent: before those inside', () =>
      change({ urgent: leave.urgent ? undefined : true }),
    ),
    entry('note', leave.note === undefined ? 'Add a note' : 'Remove the note', () =>
      change({ note: leave.note === undefined ? 'why' : undefined }),
    ),
    ...(index > 0
      ? [
          entry('up', 'Move up', () =>
            run({ command: 'moveTransition', mind, state, from: index, to: index - 1 }),
          ),
        ]
      : []),
    ...(index + 1 < count
      ? [
          entry('down', 'Move down', () =>
            run({ command: 'moveTransition', mind, state, from: index, to: index + 1 }),
          ),
        ]
      : []),
    entry('remove', 'Remove', () => run({ command: 'removeTransition', mind, state, index })),
  ];
  return (
    <Row
      aria-label={where}
      onKeyDown={(event) => {
        if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
        event.preventDefault();
        const to = index + (event.key === 'ArrowUp' ? -1 : 1);
        if (to >= 0 && to < count) run({ command: 'moveTransition', mind, state, from: index, to });
      }}
    >
      <RowName>leaves {index + 1}</RowName>
      <RowBody>
        {leave.on !== undefined && (
          <span>
            <Small>on </Small>
            <InlineText
              mono
              label={`event of ${where}`}
              value={leave.on}
              check={(text) =>
                /^[A-Za-z]\w*(\.[A-Za-z]\w*)*$/.test(text)
                  ? null
                  : 'An event name such as done or sight.certain.'
              }
              onCommit={(on) => change({ on })}
            />{' '}
          </span>
        )}
        {leave.when !== undefined && (
          <ExpressionField
            mind={mind}
            label={`guard of ${where}`}
            value={leave.when}
            path={`${path}.when`}
            place={{ guard: true }}
            onCommit={(when) => change({ when })}
            onClear={() => {
              if (leave.on === undefined && leave.after === undefined)
                return 'Without an event or a time only its guard says when this is taken. Remove the transition instead, or give it one first.';
              change({ when: undefined, for: undefined });
              return null;
            }}
          />
        )}
        {leave.for !== undefined && (
          <span>
            <Small>for </Small>
            <NumberText
              label={`seconds of for, ${where}`}
              spec={TRANSITION_FIELDS.for}
              value={leave.for}
              onCommit={(value) => change({ for: value })}
            />
            <Small> s </Small>
          </span>
        )}
        {leave.after !== undefined && (
          <span>
            <Small>after </Small>
            <NumberText
              label={`seconds of after, ${where}`}
              spec={TRANSITION_FIELDS.after}
              value={leave.after}
              onCommit={(value) => change({ after: value })}
            />
            <Small> s </Small>
          </span>
        )}
        {doing.length > 0 && <Small>do </Small>}
        {doing.map((action, i) => (
          <ActionLine
            // Actions have no names; their place is what tells them apart.
            key={i}
            mind={mind}
            action={action}
            path={`${path}.do[${i}]`}
            where={`of ${where}`}
            onChange={(next) => setDoing(doing.map((other, at) => (at === i ? next : other)))}
            onRemove={() => setDoing(doing.filter((_, at) => at !== i))}
          />
        ))}
        {leave.urgent && <Small>urgent </Small>}
        {leave.note !== undefined && (
          <Small>
            <InlineText
              label={`note of ${where}`}
              value={leave.note}
              onCommit={(note) => change({ note: note || undefined })}
            />
          </Small>
        )}
        <RowFindings path={path} />
      </RowBody>
      <Menu label={`target of ${where}`} entries={targets}>
        <QuietButton
          aria-label={`Target of ${where}: ${target ? titleOf(target.state) : 'none'}. Choose`}
          style={{
            justifyContent: 'start',
            color: 'var(--bone)',
            whiteSpace: 'normal',
            textAlign: 'left',
          }}
        >
          → {target ? titleOf(target.state) : (leave.to ?? 'stays')}
        </QuietButton>
      </Menu>
      <LiveGuard index={index} />
      <Menu label={`commands for ${where}`} entries={entries}>
        <QuietButton aria-label={`More for ${where}`}>
          <Ellipsis size={14} />
        </QuietButton>
      </Menu>
      {dialog}
    </Row>
  );
}

function entry(id: string, text: string, onAction: () => void): MenuEntry {
  return { id, text, label: text, onAction };
}
