import {
  freshName,
  nodeText,
  statePaths,
  type ActionList,
  type ActivityDocument,
  type DocumentCommand,
  type StateDocument,
} from '@crooked-lantern/core';
import { Ellipsis, Plus } from 'lucide-react';
import { useRef } from 'react';
import styled from 'styled-components';
import { useAppDispatch, useProject } from '../state/store.ts';
import { useDrawing } from '../engine/use-engine.tsx';
import { perform } from '../state/perform.ts';
import { Button, QuietButton } from '../ui/button.tsx';
import { checkTitle } from '../ui/fields.tsx';
import { InlineText } from '../ui/inline-text.tsx';
import { Menu, type MenuEntry } from '../ui/menu.tsx';
import { ActionLine, useActionEntries } from './action-line.tsx';
import { ActivityCall, CallRows, isCall, useCallEntries, type OpenPart } from './activity-call.tsx';
import { listStates, titleOf } from './document-names.ts';
import { LeaveRow } from './leave-row.tsx';
import { RowBelow, RowBody, RowName, Sheet, SheetRow } from './sheet-layout.ts';
import { WaysAround } from './ways-around.tsx';
import type { Selection } from './use-selection.ts';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line);
  h2 {
    font: 600 1.35rem/1.2 var(--title);
  }
  > span {
    color: var(--mute);
  }
  > div {
    display: flex;
    gap: 6px;
    margin-left: auto;
  }
`;

const Note = styled.p`
  padding: 6px 0;
  color: var(--mute);
`;

/** “entered 6.2 s ago by transition 1 of Rounds”, for the agent that is watched. */
function Since({ titles }: { titles: ReadonlyMap<string, string> }) {
  const box = useRef<HTMLSpanElement>(null);
  useDrawing(({ frame }) => {
    if (!box.current) return;
    const readout = frame?.readout;
    const state = readout?.state;
    if (!readout || !state) {
      box.current.textContent = '';
    } else if (!state.active) {
      box.current.textContent = ' · not active now';
    } else {
      const leaf = readout.active[readout.active.length - 1] === state.id;
      const by =
        leaf && readout.enteredBy
          ? ` by transition ${readout.enteredBy.order} of ${titles.get(readout.enteredBy.from) ?? readout.enteredBy.from}`
          : '';
      box.current.textContent = ` · entered ${(state.since ?? 0).toFixed(1)} s ago${by}`;
    }
  });
  return <span ref={box} aria-live="off" />;
}

/** A mind without states: what it does, over and over. */
function WholeActivity({
  mind,
  title,
  activity,
  onOpen,
}: {
  mind: string;
  title: string;
  activity: ActivityDocument;
  onOpen: OpenPart;
}) {
  return (
    <>
      <Head>
        <h2>{title}</h2>
        <span>one activity, started again whenever it ends</span>
      </Head>
      {isCall(activity) ? (
        <>
          <ActivityCall
            mind={mind}
            activity={activity}
            path={`minds.${mind}.activity`}
            where=""
            onOpen={onOpen}
          />
          <CallRows mind={mind} activity={activity} onOpen={onOpen} />
        </>
      ) : (
        <Note>{nodeText(activity)}</Note>
      )}
    </>
  );
}

interface ActionRowProps {
  mind: string;
  state: StateDocument;
  list: ActionList;
  path: string;
  run: (command: DocumentCommand) => unknown;
}

function ActionRow({ mind, state, list, path, run }: ActionRowProps) {
  const where = `on ${list} of ${titleOf(state)}`;
  const { entries, dialog } = useActionEntries(mind, false, (action) =>
    run({ command: 'addAction', mind, state: state.id, list, action }),
  );
  return (
    <SheetRow>
      <RowName>on {list}</RowName>
      <RowBody>
        {(state[list] ?? []).map((action, index) => (
          <ActionLine
            // Actions have no names; their place is what tells them apart.
            key={index}
            mind={mind}
            action={action}
            path={`${path}.${list}[${index}]`}
            where={where}
            onChange={(next) =>
              run({ command: 'setAction', mind, state: state.id, list, index, action: next })
            }
            onRemove={() => run({ command: 'removeAction', mind, state: state.id, list, index })}
          />
        ))}
      </RowBody>
      <Menu label={`Add an action ${where}`} entries={entries}>
        <QuietButton aria-label={`Add an action ${where}`}>
          <Plus size={14} />
        </QuietButton>
      </Menu>
      {dialog}
    </SheetRow>
  );
}

function ActivityRow({
  mind,
  state,
  path,
  run,
  onOpen,
}: Omit<ActionRowProps, 'list'> & { onOpen: OpenPart }) {
  const where = `while in ${titleOf(state)}`;
  const set = (action: ActivityDocument | null) =>
    run({
      command: 'changeState',
      mind,
      state: state.id,
      change: { activity: action ?? undefined },
    });
  const { entries: actions, dialog } = useActionEntries(mind, true, set);
  const calls = useCallEntries(mind, set);
  const { activity } = state;
  return (
    <SheetRow>
      <RowName>while here</RowName>
      <RowBody>
        {activity && isCall(activity) && (
          <ActivityCall
            mind={mind}
            activity={activity}
            path={`${path}.activity`}
            where={where}
            onOpen={onOpen}
            onRemove={() => set(null)}
          />
        )}
        {activity && !isCall(activity) && (
          <ActionLine
            mind={mind}
            action={activity}
            path={`${path}.activity`}
            where={where}
            onChange={set}
            onRemove={() => set(null)}
          />
        )}
      </RowBody>
      <Menu label={`Choose what it does ${where}`} entries={[...calls, ...actions]}>
        <QuietButton aria-label={`Choose what it does ${where}`}>
          <Plus size={14} />
        </QuietButton>
      </Menu>
      {activity && isCall(activity) && (
        <RowBelow>
          <CallRows mind={mind} activity={activity} onOpen={onOpen} />
        </RowBelow>
      )}
      {dialog}
    </SheetRow>
  );
}

/** One state: what it does on entry, while here and on exit, and when it is left, with live values at the right. */
export function StateSheet({
  selection,
  shown,
  onSelect,
  onOpen,
}: {
  selection: Selection;
  shown: string | null;
  onSelect: (state: string | null) => void;
  onOpen: OpenPart;
}) {
  const { mind } = selection;
  const dispatch = useAppDispatch();
  const document = useProject((project) => project.document);
  const nothingRuns = useProject(
    ({ checkedEdit, runningEdit }) => checkedEdit > 0 && runningEdit === 0,
  );
  /** Another state has just been chosen: the focus that a closing menu gives back must not choose this one again. */
  const left = useRef(false);
  const states = listStates(document, mind);
  const listed = states.find(({ state }) => state.id === shown) ?? states[0];
  const { machine, activity, title } = document.minds[mind] ?? {};
  if (!listed || !machine) {
    return (
      <Sheet aria-label={title ?? 'State'}>
        {activity ? (
          <WholeActivity mind={mind} title={title!} activity={activity} onOpen={onOpen} />
        ) : (
          'This project has no mind yet.'
        )}
      </Sheet>
    );
  }

  const { state, around } = listed;
  const titles = new Map(states.map((entry) => [entry.state.id, titleOf(entry.state)]));
  const path = statePaths(machine, `minds.${mind}.machine`).get(state.id)!;
  const run = (command: DocumentCommand) => dispatch(perform(command));
  const leaves = state.leaves ?? [];
  const simple = state.kind === undefined || state.kind === 'parallel';
  const parent = around[around.length - 1] ?? null;
  const siblings =
    parent === null ? machine : states.find((entry) => entry.state.id === parent)?.state;
  const isFirst = siblings?.initial === state.id;
  const addState = (inside: string | null) => {
    const id = freshName('state', (name) => titles.has(name));
    run({ command: 'insertState', mind, parent: inside, state: { id, title: 'New state' } });
    left.current = true;
    onSelect(id);
  };
  const addLeave = () => {
    const target = states.find(
      (entry) => entry.state.id !== state.id && !entry.around.includes(state.id),
    );
    run({
      command: 'addTransition',
      mind,
      state: state.id,
      transition: { to: target?.state.id ?? state.id, when: 'attention.strength > 0.5' },
    });
  };
  const entries: MenuEntry[] = [
    {
      id: 'beside',
      text: 'Add a state beside',
      label: 'Add a state beside',
      onAction: () => addState(parent),
    },
    ...(simple
      ? [
          {
            id: 'inside',
            text: 'Add a state inside',
            label: 'Add a state inside',
            onAction: () => addState(state.id),
          },
        ]
      : []),
    {
      id: 'first',
      text: 'Enter first',
      label: 'Enter first',
      onAction: () => run({ command: 'setInitial', mind, parent, initial: state.id }),
    },
    {
      id: 'remove',
      text: 'Remove the state',
      label: 'Remove the state',
      onAction: () => {
        run({ command: 'removeState', mind, state: state.id });
        onSelect(null);
      },
    },
  ];
  return (
    <Sheet
      aria-label={`State ${titleOf(state)}`}
      data-shown={state.id}
      // Whoever works on a state must not lose it because the agent moves on.
      onFocus={() => selection.state === null && !left.current && onSelect(state.id)}
    >
      <Head>
        <h2>
          <InlineText
            label="title of the state"
            value={titleOf(state)}
            check={(text) => checkTitle(text)}
            onCommit={(title) =>
              run({
                command: 'changeState',
                mind,
                state: state.id,
                change: { title: title.trim() },
              })
            }
          />
        </h2>
        <span>
          <code>{state.id}</code>
          {isFirst ? ', first' : ''}
          {parent !== null && ` in ${titles.get(parent)}`}
          {state.kind && ` · ${state.kind === 'deepHistory' ? 'deep history' : state.kind}`}
          <Since titles={titles} />
        </span>
        <div>
          {selection.state !== null && selection.agent !== null && (
            <Button onPress={() => onSelect(null)}>
              Follow {agentTitle(document, selection.agent)}
            </Button>
          )}
          <Menu label={`Commands for ${titleOf(state)}`} entries={entries}>
            <QuietButton aria-label={`More for ${titleOf(state)}`}>
              <Ellipsis size={16} />
            </QuietButton>
          </Menu>
        </div>
      </Head>
      {state.note && <Note>{state.note}</Note>}
      <ul aria-label={`${titleOf(state)}: what it does and when it is left`}>
        {simple && (
          <>
            <ActionRow mind={mind} state={state} list="entry" path={path} run={run} />
            <ActivityRow mind={mind} state={state} path={path} run={run} onOpen={onOpen} />
            <ActionRow mind={mind} state={state} list="exit" path={path} run={run} />
            {leaves.map((leave, index) => (
              <LeaveRow
                // Transitions have no names; their place is their number.
                key={`${state.id} ${index}`}
                mind={mind}
                state={state.id}
                title={titleOf(state)}
                leave={leave}
                index={index}
                count={leaves.length}
                path={`${path}.leaves[${index}]`}
              />
            ))}
          </>
        )}
        {state.kind === 'final' && (
          <ActionRow mind={mind} state={state} list="entry" path={path} run={run} />
        )}
      </ul>
      {simple && (
        <QuietButton onPress={addLeave} style={{ marginTop: 6 }}>
          <Plus size={14} /> Add a way out
        </QuietButton>
      )}
      <WaysAround of={listed} states={states} onSelect={onSelect} />
      {nothingRuns && <Note>Nothing runs yet: mend the errors listed under Findings.</Note>}
    </Sheet>
  );
}

function agentTitle(
  document: {
    grounds: Record<string, { agents: Record<string, { title?: string }> }>;
    start: { ground: string };
  },
  agent: string,
): string {
  return document.grounds[document.start.ground]?.agents[agent]?.title ?? agent;
}
