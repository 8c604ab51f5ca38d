import type { ActivityDocument, DocumentCommand, StateDocument } from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { QuietButton } from '../ui/button.tsx';
import { Menu } from '../ui/menu.tsx';
import { ActionLine, useActionEntries } from './action-line.tsx';
import { ActionList } from './action-list.tsx';
import { ActivityCall, CallRows, isCall, useCallEntries, type OpenPart } from './activity-call.tsx';
import { titleOf } from './document-names.ts';
import { RowBelow, RowBody, RowName, SheetRow } from './sheet-layout.ts';

/** What a state does: on entry, while it is active, on exit. */

export type StateChange = Extract<DocumentCommand, { command: 'changeState' }>['change'];

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

export function ActivityRow({
  mind,
  state,
  path,
  change,
  onOpen,
}: Omit<ActionRowProps, 'list'> & { onOpen: OpenPart }) {
  const where = `while in ${titleOf(state)}`;
  const set = (action: ActivityDocument | null) => change({ activity: action ?? undefined });
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
