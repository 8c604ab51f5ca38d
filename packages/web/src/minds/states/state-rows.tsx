import {
  findState,
  idsOf,
  sendAction,
  type ActionPlace,
  type ActivityDocument,
  type DocumentCommand,
  type ProjectDocument,
  type StateDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { perform } from '../../state/perform.ts';
import { useAppDispatch, useProject } from '../../state/store.ts';
import { QuietButton } from '../../ui/button.tsx';
import { Menu, type MenuEntry } from '../../ui/overlays/menu.tsx';
import { ActionLine, useActionEntries } from '../actions/action-line.tsx';
import { ActionList } from '../actions/action-list.tsx';
import {
  ActivityCall,
  CallRows,
  isCall,
  useCallEntries,
  type OpenPart,
} from '../actions/activity-call.tsx';
import { titleOf } from '../document-names.ts';
import { RowBelow, RowBody, RowName, SheetRow } from '../sheet-layout.ts';
import { runInBackground } from '../../state/failures.ts';

/** What a state does: on entry, while it is active, on exit. */

export type StateChange = Extract<DocumentCommand, { command: 'changeState' }>['change'];

/** Menu entries that move an action of a state to another place in the mind, or copy it there. */
function useSendEntries(mind: string, from: ActionPlace): (index: number) => MenuEntry[] {
  const dispatch = useAppDispatch();
  const machine = useProject(({ document }) => document.minds[mind]?.machine);
  return (index) => {
    const states = (machine?.states ?? []).flatMap(idsOf);
    const places = states.flatMap((state) =>
      (['entry', 'exit'] as const)
        .filter((list) => state !== from.state || list !== from.list)
        .map((list) => ({ state, list })),
    );
    const entries = (keep: boolean): MenuEntry[] =>
      places.map((to) => {
        const text = `${titleOf(findState(machine!.states, to.state)!)}, on ${to.list}`;
        const make = (document: ProjectDocument) =>
          sendAction(document, mind, { ...from, index }, to, keep);
        return {
          id: `${keep} ${to.state} ${to.list}`,
          text,
          label: text,
          onAction: () => runInBackground(dispatch(perform(make))),
        };
      });
    return [
      { id: 'moveTo', text: 'Move to', label: 'Move to', entries: entries(false) },
      { id: 'copyTo', text: 'Copy to', label: 'Copy to', entries: entries(true) },
    ];
  };
}

interface ActionRowProps {
  mind: string;
  state: StateDocument;
  list: 'entry' | 'exit';
  path: string;
  change: (change: StateChange) => unknown;
}

export function ActionRow({ mind, state, list, path, change }: ActionRowProps) {
  const where = `on ${list} of ${titleOf(state)}`;
  const actions = state[list] ?? [];
  const { entries, dialog } = useActionEntries(mind, false, (action) =>
    change({ [list]: [...actions, action] }),
  );
  const sendEntries = useSendEntries(mind, { state: state.id, list });
  return (
    <SheetRow>
      <RowName>on {list}</RowName>
      <RowBody>
        <ActionList
          mind={mind}
          actions={actions}
          path={`${path}.${list}`}
          where={where}
          onChange={(next) => change({ [list]: next })}
          moreFor={sendEntries}
        />
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

/** What a state does while it is active, or a mind as a whole. */
export function ActivityRow({
  mind,
  activity,
  path,
  name,
  where,
  onChange,
  onRemove,
  onOpen,
}: {
  mind: string;
  activity: ActivityDocument | undefined;
  /** Path of the activity in the document. */
  path: string;
  name: string;
  /** “while in Chase”, for readers. */
  where: string;
  onChange: (activity: ActivityDocument) => unknown;
  /** Left out where there must be one. */
  onRemove?: () => void;
  onOpen: OpenPart;
}) {
  const { entries: actions, dialog } = useActionEntries(mind, true, onChange);
  const calls = useCallEntries(mind, onChange);
  return (
    <SheetRow>
      <RowName>{name}</RowName>
      <RowBody>
        {activity && isCall(activity) && (
          <ActivityCall
            mind={mind}
            activity={activity}
            path={path}
            where={where}
            onOpen={onOpen}
            onChange={onChange}
            onRemove={onRemove}
          />
        )}
        {activity && !isCall(activity) && (
          <ActionLine
            mind={mind}
            action={activity}
            path={path}
            where={where}
            onChange={onChange}
            onRemove={onRemove}
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
