import { clipText, TRANSITION_FIELDS } from '@crooked-lantern/core';
import type { DocumentCommand, TransitionDocument } from '@crooked-lantern/core';
import { Ellipsis } from 'lucide-react';
import styled from 'styled-components';
import { useAppDispatch, useProject } from '../../state/store.ts';
import { perform } from '../../state/perform.ts';
import { QuietButton } from '../../ui/button.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import { Menu, type MenuEntry } from '../../ui/overlays/menu.tsx';
import { runInBackground } from '../../state/failures.ts';
import { copyText } from '../../ui/words/copy-text.ts';
import { useActionEntries } from '../actions/action-line.tsx';
import { ActionList } from '../actions/action-list.tsx';
import { listStates, titleOf } from '../document-names.ts';
import { EventField } from './event-field.tsx';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { LiveGuard } from '../live/live-guard.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { RowBody, RowName, SheetRow } from '../sheet-layout.ts';
import { TierValues } from '../../project/tier-values.tsx';

const Row = styled(SheetRow)`
  grid-template-columns: 86px minmax(0, 1fr) 96px 128px auto;
  @media (max-width: 700px) {
    grid-template-columns: 86px minmax(0, 1fr) auto;
  }
`;

const Small = styled.span`
  color: var(--mute);
`;

export interface LeaveRowProps {
  mind: string;
  /** Whose values are shown. */
  agent: string | null;
  state: string;
  title: string;
  leave: TransitionDocument;
  index: number;
  count: number;
  path: string;
}

export function LeaveRow({ mind, agent, state, title, leave, index, count, path }: LeaveRowProps) {
  const dispatch = useAppDispatch();
  const document = useProject((project) => project.document);
  const where = `transition ${index + 1} of ${title}`;
  const run = (command: DocumentCommand) => dispatch(perform(command));
  const change = (fields: Partial<TransitionDocument>) =>
    run({ command: 'changeTransition', mind, state, index, change: fields });
  const doing = leave.do ?? [];
  const { entries: actions, dialog } = useActionEntries(mind, false, (action) =>
    change({ do: [...doing, action] }),
  );
  const states = listStates(document, mind);
  const target = states.find((listed) => listed.state.id === leave.to);
  const targets: MenuEntry[] = [
    ...states.map(({ state: { id }, state: listed, around }) => ({
      id,
      text: titleOf(listed),
      label: `${'  '.repeat(around.length)}${titleOf(listed)}`,
      onAction: () => change({ to: id }),
    })),
    // No state can have this id.
    entry('+stays', 'None: does something and stays', () =>
      change({ to: undefined, internal: undefined }),
    ),
  ];
  const entries: MenuEntry[] = [
    ...(leave.when === undefined
      ? [entry('add-when', 'Add a guard', () => change({ when: 'time > 0' }))]
      : [
          entry('drop-when', 'Remove the guard', () => change({ when: undefined, for: undefined })),
        ]),
    ...(leave.on === undefined
      ? [entry('add-on', 'Wait for an event', () => change({ on: 'done' }))]
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
    ...(leave.to === undefined
      ? []
      : [
          entry(
            'internal',
            leave.internal ? 'Not internal' : 'Internal: does not leave the state it is in',
            () => change({ internal: leave.internal ? undefined : true }),
          ),
        ]),
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
    entry('duplicate', 'Duplicate', () =>
      run({
        command: 'several',
        what: `copy of ${where}`,
        commands: [
          { command: 'addTransition', mind, state, transition: leave },
          { command: 'moveTransition', mind, state, from: count, to: index + 1 },
        ],
      }),
    ),
    entry('copy', 'Copy', () => {
      runInBackground(copyText(clipText(document, mind, { transitions: [leave] })));
    }),
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
            <EventField
              mind={mind}
              label={`event of ${where}`}
              value={leave.on}
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
            <TierValues path={`${path}.for`} />
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
            <TierValues path={`${path}.after`} />
          </span>
        )}
        {doing.length > 0 && <Small>do </Small>}
        <ActionList
          mind={mind}
          actions={doing}
          path={`${path}.do`}
          where={`of ${where}`}
          onChange={(next) => change({ do: next })}
        />
        {leave.internal && <Small>internal </Small>}
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
      <LiveGuard
        agent={agent}
        state={state}
        order={index + 1}
        read={(watched) => ({ leave: watched.transitions[index], active: watched.active })}
      />
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
