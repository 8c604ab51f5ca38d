import {
  agentNamed,
  statePaths,
  type ActivityDocument,
  type DocumentCommand,
  type ProjectDocument,
  freshGuard,
} from '@crooked-lantern/core';
import { Ellipsis, Plus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { useAppDispatch, useProject } from '../../state/store.ts';
import { useDrawing } from '../../engine/use-engine.tsx';
import { perform } from '../../state/perform.ts';
import { Button, QuietButton } from '../../ui/button.tsx';
import { checkName, checkTitle } from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { Menu, type MenuEntry } from '../../ui/overlays/menu.tsx';
import { AttentionRow } from './attention-row.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { STATE_COMMANDS, type StateCommand } from './state-keys.ts';
import { useStateQuestions } from './use-state-questions.tsx';
import type { StateWork } from './use-state-work.tsx';
import { Kbd } from '../../ui/pill.tsx';
import { keyShown } from '../../ui/timing/pressed-key.ts';
import type { OpenPart } from '../actions/activity-call.tsx';
import { listStates, titleOf } from '../document-names.ts';
import { LeaveRow } from './leave-row.tsx';
import { Sheet, Trouble } from '../sheet-layout.ts';
import { useEdit } from '../../state/use-edit.ts';
import { ActionRow, ActivityRow, type StateChange } from './state-rows.tsx';
import { WaysAround } from './ways-around.tsx';
import { isWriting } from '../use-paste.tsx';
import type { Selection } from '../use-selection.ts';
import { writeText } from '../../ui/timing/write-live.ts';

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
      writeText(box.current, '');
    } else if (!state.active) {
      writeText(box.current, ' · not active now');
    } else {
      const leaf = readout.active[readout.active.length - 1] === state.id;
      const { enteredBy } = readout;
      const by = !leaf
        ? ''
        : enteredBy
          ? ` by transition ${enteredBy.order} of ${titles.get(enteredBy.from) ?? enteredBy.from}`
          : ': it starts here, because this is the first state';
      const end = readout.ended.find((each) => each.state === state.id);
      const how = end?.ending === 'success' ? 'succeeded' : 'failed';
      const ended = end ? ` · ended ${end.seconds.toFixed(1)} s ago (${how})` : '';
      writeText(box.current, ` · entered ${(state.since ?? 0).toFixed(1)} s ago${by}${ended}`);
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
  const { put, trouble } = useEdit();
  return (
    <>
      <Head>
        <h2>{title}</h2>
        <span>one activity, started again whenever it ends</span>
      </Head>
      <ul aria-label={`What ${title} does`}>
        <ActivityRow
          mind={mind}
          activity={activity}
          path={`minds.${mind}.activity`}
          name="always"
          where={`in ${title}`}
          onChange={(next) => put(['minds', mind, 'activity'], next)}
          onOpen={onOpen}
        />
      </ul>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </>
  );
}

/** One state: what it does on entry, while here and on exit, and when it is left, with live values at the right. */
export function StateSheet({
  selection,
  shown,
  onSelect,
  onOpen,
  work,
}: {
  selection: Selection;
  shown: string | null;
  onSelect: (state: string | null) => void;
  onOpen: OpenPart;
  work: StateWork;
}) {
  const { mind } = selection;
  const dispatch = useAppDispatch();
  const document = useProject((project) => project.document);
  const nothingRuns = useProject(
    ({ checkedEdit, runningEdit }) => checkedEdit > 0 && runningEdit === 0,
  );
  /** Another state has just been chosen: the focus that a closing menu gives back must not choose this one again. */
  const left = useRef(false);
  const menuButton = useRef<HTMLButtonElement>(null);
  const sheet = useRef<HTMLElement>(null);
  const { openGuard } = work;
  useEffect(() => {
    if (sheet.current && shown !== null) openGuard(sheet.current, shown);
  }, [openGuard, shown, document]);
  const states = listStates(document, mind);
  const listed = states.find(({ state }) => state.id === shown) ?? states[0];
  const questions = useStateQuestions(mind, listed?.state ?? null, selection.agent);
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
  const transitions = state.transitions ?? [];
  const simple = state.kind === undefined || state.kind === 'parallel';
  const parent = around[around.length - 1] ?? null;
  const siblings =
    parent === null ? machine : states.find((entry) => entry.state.id === parent)?.state;
  const isFirst = siblings?.initial === state.id;
  const addLeave = () => {
    const target = states.find(
      (entry) => entry.state.id !== state.id && !entry.around.includes(state.id),
    );
    run({
      command: 'addTransition',
      mind,
      state: state.id,
      transition: { to: target?.state.id ?? state.id, when: freshGuard(document, mind) },
    });
  };
  const change = (fields: StateChange) =>
    run({ command: 'changeState', mind, state: state.id, change: fields });
  const entries = (Object.keys(STATE_COMMANDS) as StateCommand[]).map((id): MenuEntry => ({
    id,
    text: STATE_COMMANDS[id].name,
    label: (
      <>
        {STATE_COMMANDS[id].name} <Kbd>{keyShown(STATE_COMMANDS[id].keys[0])}</Kbd>
      </>
    ),
    onAction: () => {
      left.current = true;
      work.act(id, state.id, menuButton.current);
    },
  }));
  const note = (
    <NoteText
      label={`note on ${titleOf(state)}`}
      note={state.note}
      onCommit={(text) => change({ note: text })}
    />
  );
  return (
    <Sheet
      aria-label={`State ${titleOf(state)}`}
      data-shown={state.id}
      ref={sheet}
      // The way back to the plan.
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || event.defaultPrevented || isWriting(event.target)) return;
        globalThis.document.querySelector<SVGElement>(`[data-state="${state.id}"]`)?.focus();
      }}
      // A user who works on a state must not lose it because the agent moves on.
      onFocus={() => selection.state === null && !left.current && onSelect(state.id)}
    >
      <Head>
        <h2>
          <InlineText
            label="title of the state"
            value={titleOf(state)}
            check={(text) => checkTitle(text)}
            onCommit={(title) => change({ title: title.trim() })}
          />
        </h2>
        <span>
          <InlineText
            mono
            label={`id of ${titleOf(state)}`}
            value={state.id}
            check={checkName(state.id, Object.fromEntries(titles))}
            onCommit={(to) => {
              if (
                run({ command: 'renameInMind', mind, part: 'states', name: state.id, to }) === null
              )
                onSelect(to);
            }}
          />
          {isFirst ? ', first' : ''}
          {parent !== null && ` in ${titles.get(parent)}`}
          {state.kind && ` · ${state.kind === 'deepHistory' ? 'deep history' : state.kind}`}
          <Since titles={titles} />
          {state.note === undefined && <> · {note}</>}
        </span>
        <div>
          {selection.state !== null && selection.agent !== null && (
            <Button onPress={() => onSelect(null)}>
              Follow {agentTitle(document, selection.agent)}
            </Button>
          )}
          <Menu label={`Commands for ${titleOf(state)}`} entries={[...questions, ...entries]}>
            <QuietButton ref={menuButton} aria-label={`More for ${titleOf(state)}`}>
              <Ellipsis size={16} />
            </QuietButton>
          </Menu>
        </div>
      </Head>
      {state.note !== undefined && <Note>{note}</Note>}
      <RowFindings path={path} own />
      <ul aria-label={`${titleOf(state)}: what it does and when it is left`}>
        {simple && (
          <>
            <ActionRow mind={mind} state={state} list="entry" path={path} change={change} />
            <ActivityRow
              mind={mind}
              activity={state.activity}
              path={`${path}.activity`}
              name="while here"
              where={`while in ${titleOf(state)}`}
              onChange={(activity) => change({ activity })}
              onRemove={() => change({ activity: undefined })}
              onOpen={onOpen}
            />
            <ActionRow mind={mind} state={state} list="exit" path={path} change={change} />
            {transitions.map((leave, index) => (
              <LeaveRow
                // Transitions have no names; their place is their number.
                key={`${state.id} ${index}`}
                mind={mind}
                agent={selection.agent}
                state={state.id}
                title={titleOf(state)}
                leave={leave}
                index={index}
                count={transitions.length}
                path={`${path}.transitions[${index}]`}
              />
            ))}
            <AttentionRow
              title={titleOf(state)}
              attention={state.attention}
              onChange={(attention) => change({ attention })}
            />
          </>
        )}
        {state.kind === 'final' && (
          <ActionRow mind={mind} state={state} list="entry" path={path} change={change} />
        )}
      </ul>
      {simple && (
        <QuietButton onPress={addLeave} style={{ marginTop: 6 }}>
          <Plus size={14} /> Add a transition
        </QuietButton>
      )}
      <WaysAround of={listed} agent={selection.agent} states={states} onSelect={onSelect} />
      {nothingRuns && <Note>Nothing runs yet: fix the errors listed under Findings.</Note>}
    </Sheet>
  );
}

function agentTitle(document: ProjectDocument, agent: string): string {
  return agentNamed(document, agent)?.title ?? agent;
}
