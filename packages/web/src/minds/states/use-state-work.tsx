import {
  ACTIONS,
  findState,
  freshCall,
  freshGuard,
  idsOf,
  nameFromWords,
  offeredActions,
  parentOf,
  STATE_KINDS,
  titleOfCopy,
  withFreeIds,
  type ActionName,
  type DocumentCommand,
  type MachineDocument,
  type ProjectDocument,
  type StateKind,
} from '@crooked-lantern/core';
import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react';
import { useDocumentNow } from '../../state/store.ts';
import { useEdit } from '../../state/use-edit.ts';
import { useAskText } from '../../ui/fields/ask-text.tsx';
import { whenFree } from '../../ui/timing/when-free.ts';
import { ChooseFrom, type NamedChoice } from '../../ui/fields/choose-from.tsx';
import { checkTitle } from '../../ui/fields/fields.tsx';
import { useFreshAction } from '../actions/action-line.tsx';
import { listStates, titleOf } from '../document-names.ts';
import type { StateCommand } from './state-keys.ts';
import type { Selection } from '../use-selection.ts';

/** Making, moving and taking away states: the same from the plan's keys, from menus and from buttons. */

export interface StateWork {
  /** `at` is what a list opens under. */
  act: (command: StateCommand, state: string, at?: Element | null) => void;
  /** Opens the guard that has just been made, once the sheet of its state shows it. */
  openGuard: (sheet: HTMLElement, state: string) => void;
  /** Focuses a state on the plan as soon as it is drawn. */
  giveFocus: (drawnOf: (state: string) => SVGElement | null) => void;
  trouble: string | null;
  /** Must be rendered. */
  dialog: ReactNode;
}

type AskedFor = 'way' | 'move' | 'kind' | 'entry' | 'does' | 'exit';

interface Asked {
  what: AskedFor;
  state: string;
  at: { current: Element | null };
}

const KINDS: Record<StateKind | 'plain', { name: string; about: string }> = {
  plain: { name: 'Plain', about: 'one state, or a room with one of its states active' },
  parallel: { name: 'Parallel', about: 'all its states are active at once' },
  final: { name: 'Final', about: 'ends the room it is in' },
  history: { name: 'History', about: 'enters what was last active beside it' },
  deepHistory: { name: 'Deep history', about: 'the same, with all that was active inside' },
};

/** Actions that go on, or those that don't. */
function actionChoices(document: ProjectDocument, mind: string, lasts: boolean): NamedChoice[] {
  return offeredActions(document, mind)
    .filter((name) => ACTIONS[name].lasts === lasts)
    .map((name) => ({ id: name, name: ACTIONS[name].title, about: ACTIONS[name].about }));
}

const NEW_TREE = '+tree';
const OUTERMOST = '+outermost';
const NEW_STATE = '+new';

/** Places of a state among those beside it, and the room they are in. */
function placeIn(machine: MachineDocument, state: string) {
  const parent = parentOf(machine.states, state);
  const siblings = parent?.states ?? machine.states;
  return {
    parent: parent?.id ?? null,
    siblings,
    at: siblings.findIndex(({ id }) => id === state),
  };
}

function freeId(machine: MachineDocument, title: string): string {
  const taken = Object.fromEntries(machine.states.flatMap(idsOf).map((id) => [id, true]));
  return nameFromWords(title, taken, 'state');
}

export function useStateWork(
  selection: Selection,
  select: (change: Partial<Selection>) => void,
): StateWork {
  const { mind } = selection;
  const documentNow = useDocumentNow();
  const { run, attempt, trouble } = useEdit();
  const { ask, dialog } = useAskText();
  const [asked, setAsked] = useState<Asked | null>(null);
  const wanted = useRef<string | null>(null);
  /** A guard that is to be opened for writing. */
  const guard = useRef<{ state: string; index: number } | null>(null);
  const { withKeys, dialog: keyDialog } = useFreshAction(mind);
  const machineNow = useCallback(() => documentNow().minds[mind]?.machine, [documentNow, mind]);

  const show = useCallback(
    (state: string | null) => {
      wanted.current = state;
      select({ state });
    },
    [select],
  );

  const act = useCallback<StateWork['act']>(
    (command, state, at = null) => {
      const machine = machineNow();
      if (!machine) return;
      const found = findState(machine.states, state);
      if (!found) return;
      const { parent, siblings, at: index } = placeIn(machine, state);
      const title = titleOf(found);
      const runThen = (commandToRun: DocumentCommand, then: string | null) => {
        if (run(commandToRun)) show(then);
      };
      const askTitle = (
        question: string,
        value: string,
        make: (title: string, id: string) => DocumentCommand,
      ) =>
        ask({
          title: question,
          label: 'Title',
          verb: 'Add it',
          value,
          check: checkTitle,
          onGive: (given) => {
            const id = freeId(machine, given);
            const refused = attempt(make(given, id));
            if (refused === null) show(id);
            return refused;
          },
        });
      switch (command) {
        case 'beside':
          return askTitle(`A state beside ${title}`, 'New state', (given, id) => ({
            command: 'insertState',
            mind,
            parent,
            at: index + 1,
            state: { id, title: given },
          }));
        case 'inside':
          return askTitle(`A state inside ${title}`, 'New state', (given, id) => ({
            command: 'insertState',
            mind,
            parent: state,
            state: { id, title: given },
          }));
        case 'wrap':
          return askTitle(`A state around ${title}`, 'New room', (given, id) => ({
            command: 'wrapState',
            mind,
            state,
            id,
            title: given,
          }));
        case 'title':
          return ask({
            title: `Title of ${title}`,
            label: 'Title',
            verb: 'Change it',
            value: title,
            check: checkTitle,
            onGive: (given) => {
              run({ command: 'changeState', mind, state, change: { title: given } });
              show(state);
              return null;
            },
          });
        case 'way':
        case 'move':
        case 'kind':
        case 'entry':
        case 'does':
        case 'exit':
          return setAsked({ what: command, state, at: { current: at } });
        case 'first':
          return runThen({ command: 'setInitial', mind, parent, initial: state }, state);
        case 'duplicate': {
          const copy = withFreeIds(machine, found);
          const titles = listStates(documentNow(), mind).map((each) => titleOf(each.state));
          copy.title = titleOfCopy(title, titles);
          return runThen(
            { command: 'insertState', mind, parent, at: index + 1, state: copy },
            copy.id,
          );
        }
        case 'earlier':
        case 'later': {
          const to = index + (command === 'earlier' ? -1 : 1);
          if (to < 0 || to >= siblings.length) return;
          return runThen({ command: 'moveState', mind, state, parent, at: to }, state);
        }
        case 'remove': {
          const next = siblings[index + 1] ?? siblings[index - 1];
          return runThen({ command: 'removeState', mind, state }, next?.id ?? parent);
        }
      }
    },
    [machineNow, documentNow, mind, run, attempt, show, ask],
  );

  const choices = useMemo((): NamedChoice[] => {
    const document = documentNow();
    const { machine } = document.minds[mind] ?? {};
    if (!asked || !machine) return [];
    if (asked.what === 'kind')
      return Object.entries(KINDS).map(([id, words]) => ({ id, ...words }));
    if (asked.what === 'entry' || asked.what === 'exit')
      return actionChoices(document, mind, false);
    if (asked.what === 'does') {
      const { trees = {}, rules = {} } = document.minds[mind];
      return [
        ...actionChoices(document, mind, true),
        { id: NEW_TREE, name: 'New tree …', about: 'made and opened, to be written row by row' },
        ...Object.entries(trees).map(([name, { title = name, note = '' }]) => ({
          id: `tree ${name}`,
          name: `Tree ${title}`,
          about: note,
        })),
        ...Object.entries(rules).map(([name, { title = name, note = '' }]) => ({
          id: `rules ${name}`,
          name: `Rules ${title}`,
          about: note,
        })),
      ];
    }
    const all = listStates(document, mind);
    const places = all.map(({ state, around }) => ({
      id: state.id,
      name: titleOf(state),
      about: around.length === 0 ? '' : `in ${around.join(', ')}`,
    }));
    if (asked.what === 'way')
      return [{ id: NEW_STATE, name: 'New state …', about: 'made beside this one' }, ...places];
    const inside = new Set(idsOf(findState(machine.states, asked.state)!));
    return [
      { id: OUTERMOST, name: 'Out of all states', about: 'among the outermost' },
      ...places.filter(({ id }) => !inside.has(id)),
    ];
  }, [asked, documentNow, mind]);

  /** Of the transition that has just been added, which is the last. */
  const showGuard = (state: string) => {
    const transitions = findState(machineNow()?.states ?? [], state)?.transitions ?? [];
    guard.current = { state, index: transitions.length - 1 };
    // The guard will have the focus, not the state.
    wanted.current = null;
    select({ state });
  };

  /** Adds what was chosen to what a state does. */
  const doThis = (what: 'entry' | 'exit' | 'does', state: string, choice: string) => {
    const found = findState(machineNow()!.states, state)!;
    const change = (fields: Extract<DocumentCommand, { command: 'changeState' }>['change']) => {
      if (run({ command: 'changeState', mind, state, change: fields })) show(state);
    };
    const [kind, name] = choice.split(' ');
    if (choice === NEW_TREE) {
      return ask({
        title: `A new tree for ${titleOf(found)}`,
        label: 'Title',
        verb: 'Add it',
        value: titleOf(found),
        check: checkTitle,
        onGive: (title) => {
          const tree = nameFromWords(title, documentNow().minds[mind].trees, 'tree');
          const done = run({
            command: 'several',
            what: `new tree ${title}`,
            commands: [
              {
                command: 'put',
                how: 'set',
                path: ['minds', mind, 'trees', tree],
                value: { title, root: { sequence: [] } },
              },
              { command: 'changeState', mind, state, change: { activity: { tree } } },
            ],
          });
          if (done) select({ sheet: `trees.${tree}` });
          return done ? null : 'It could not be added.';
        },
      });
    }
    if (name !== undefined)
      return change({
        activity: kind === 'tree' ? freshCall(documentNow(), mind, name) : { rules: name },
      });
    withKeys(choice as ActionName, (action) => {
      if (what === 'does') change({ activity: action });
      else change({ [what]: [...(found[what] ?? []), action] });
    });
  };

  const choose = (choice: string) => {
    const machine = machineNow();
    if (!asked || !machine) return;
    const { what, state } = asked;
    setAsked(null);
    if (what === 'move') {
      const parent = choice === OUTERMOST ? null : choice;
      const among =
        parent === null ? machine.states : (findState(machine.states, parent)?.states ?? []);
      const at = among.filter(({ id }) => id !== state).length;
      if (run({ command: 'moveState', mind, state, parent, at })) show(state);
      return;
    }
    if (what === 'kind') {
      const kind = (STATE_KINDS as readonly string[]).includes(choice)
        ? (choice as StateKind)
        : undefined;
      if (run({ command: 'changeState', mind, state, change: { kind } })) show(state);
      return;
    }
    if (what === 'entry' || what === 'exit' || what === 'does') return doThis(what, state, choice);
    const leadTo = (to: string): DocumentCommand => ({
      command: 'addTransition',
      mind,
      state,
      transition: { to, when: freshGuard(documentNow(), mind) },
    });
    if (choice !== NEW_STATE) {
      if (run(leadTo(choice))) showGuard(state);
      return;
    }
    const { parent, at } = placeIn(machine, state);
    ask({
      title: `A new state that ${titleOf(findState(machine.states, state)!)} leads to`,
      label: 'Title',
      verb: 'Add both',
      value: 'New state',
      check: checkTitle,
      onGive: (title) => {
        const id = freeId(machine, title);
        const done = run({
          command: 'several',
          what: `new state ${title} with a way to it`,
          commands: [
            { command: 'insertState', mind, parent, at: at + 1, state: { id, title } },
            leadTo(id),
          ],
        });
        // What it leads to is written next, unless its guard is changed first.
        if (done) showGuard(state);
        return done ? null : 'It could not be added.';
      },
    });
  };

  const labels: Record<AskedFor, string> = {
    way: 'A transition to',
    move: 'Move into',
    kind: 'Kind of the state',
    entry: 'Do on entry',
    does: 'Do while here',
    exit: 'Do on exit',
  };
  return {
    act,
    openGuard: useCallback<StateWork['openGuard']>((sheet, state) => {
      if (guard.current?.state !== state) return;
      const label = `guard of transition ${guard.current.index + 1} of `;
      const button = sheet.querySelector<HTMLElement>(`button[aria-label^="${label}"]`);
      if (!button) return;
      guard.current = null;
      wanted.current = null;
      whenFree(() => button.click());
    }, []),
    giveFocus: useCallback<StateWork['giveFocus']>((drawnOf) => {
      const drawn = wanted.current === null ? null : drawnOf(wanted.current);
      if (!drawn) return;
      wanted.current = null;
      whenFree(() => drawn.focus({ preventScroll: true }));
    }, []),
    trouble,
    dialog: (
      <>
        {dialog}
        {keyDialog}
        {asked && (
          <ChooseFrom
            label={labels[asked.what]}
            at={asked.at}
            choices={choices}
            onChoose={choose}
            onClose={() => {
              show(asked.state);
              setAsked(null);
            }}
          />
        )}
      </>
    ),
  };
}
