import type { OpenPart } from '../actions/activity-call.tsx';
import {
  clipText,
  rowsContent,
  type ActionDocument,
  type DocumentPath,
  type ProjectDocument,
  type RowEdit,
} from '@crooked-lantern/core';
import {
  useMemo,
  useRef,
  type ClipboardEvent,
  type Dispatch,
  type DragEvent,
  type KeyboardEvent,
  type RefObject,
  type SetStateAction,
} from 'react';
import { commandPressed, pressed } from '../../ui/timing/pressed-key.ts';
import { toggled } from '../../ui/words/toggled.ts';
import { isWriting, type Paste } from '../use-paste.tsx';
import { ROW_COMMANDS, type RowCommand } from './row-keys.ts';
import { commandsOf, type RowActs } from './row-view.tsx';
import { PLAIN_COMMANDS, rowWork } from './row-work.ts';
import { idsBetween, type KnownRow } from './visible-rows.ts';

/** A list of kinds that is open under a row, and for what. */
export interface Asked {
  what: 'insert' | 'wrap' | 'kind' | 'find';
  known: KnownRow;
}

interface Surroundings {
  documentNow: () => ProjectDocument;
  mind: string;
  rows: readonly KnownRow[];
  current: string | null;
  chosen: ReadonlySet<string>;
  grid: RefObject<HTMLElement | null>;
  /** Makes a change; the row it gives has the focus then, with its field opened. False where it was refused. */
  edit: (work: (document: ProjectDocument) => RowEdit, field?: string) => boolean;
  setCurrent: (id: string) => void;
  setChosen: Dispatch<SetStateAction<ReadonlySet<string>>>;
  setFolded: Dispatch<SetStateAction<ReadonlySet<string>>>;
  setTrouble: (trouble: string | null) => void;
  focusRow: (id: string, field?: string) => void;
  onOpen?: OpenPart;
  /** Puts a link to a row on the clipboard. */
  onLink: (row: string) => void;
  /** Asks why the followed agent does what a row says, or not. */
  onWhy: (row: string) => void;
  /** Shows a row that may be inside folded ones. */
  reveal: (id: string) => void;
  ask: (asked: Asked) => void;
  openMenu: (known: KnownRow, at: Element) => void;
}

const DRAGGED = 'application/x-crooked-lantern-row';

/** Where a row that is dragged over another would go. */
function dropPlace(event: DragEvent<HTMLElement>): 'before' | 'after' | 'inside' {
  const { top, height } = event.currentTarget.getBoundingClientRect();
  const part = (event.clientY - top) / height;
  return part < 0.3 ? 'before' : part > 0.7 ? 'after' : 'inside';
}

/** Everything that keys, menus and pointers do with rows. The functions stay the same over renders. */
export function useRowActs(surroundings: Surroundings) {
  const latest = useRef(surroundings);
  latest.current = surroundings;
  /** Where a choice of several began. */
  const anchor = useRef<string | null>(null);
  const leaving = useRef(false);
  return useMemo(() => {
    const chosenPaths = (known: KnownRow): DocumentPath[] => {
      const { rows, chosen } = latest.current;
      const several = rows.filter(({ id }) => chosen.has(id));
      return several.some(({ id }) => id === known.id)
        ? several.map(({ row }) => row.path)
        : [known.row.path];
    };
    const nodeOf = ({ row }: KnownRow) => ('node' in row ? row.node : undefined);

    const command = (name: RowCommand, known: KnownRow): void => {
      const { edit, ask, focusRow, setTrouble, onOpen, onLink, onWhy, grid } = latest.current;
      if (!commandsOf(known).includes(name)) {
        setTrouble(`“${ROW_COMMANDS[name].name}” makes no sense for this row.`);
        return;
      }
      const { path } = known.row;
      switch (name) {
        case 'insert':
        case 'wrap':
        case 'kind':
        case 'find':
          return ask({ what: name, known });
        case 'link':
          return onLink(known.id);
        case 'why':
          return onWhy(known.pathText);
        case 'edit':
          grid.current
            ?.querySelector<HTMLElement>(
              `[data-id="${CSS.escape(known.id)}"] [data-words] button:not([aria-hidden])`,
            )
            ?.click();
          return;
        case 'guard':
          if (nodeOf(known)?.when !== undefined) return focusRow(known.id, 'guard');
          edit(rowWork.guard(path), 'guard');
          return;
        case 'title':
        case 'note': {
          const part = known.row.kind === 'rule' ? known.row.rule : nodeOf(known);
          if (part?.[name] !== undefined) return focusRow(known.id, name);
          edit(
            rowWork.set(path, { [name]: name === 'title' ? 'New title' : 'Why it is so' }),
            name,
          );
          return;
        }
        case 'restart': {
          const restarts = (nodeOf(known) as { restart?: true } | undefined)?.restart;
          edit(rowWork.set(path, { restart: restarts ? undefined : true }));
          return;
        }
        case 'uninterrupted': {
          const { uninterrupted } = nodeOf(known) as { uninterrupted?: true };
          edit(rowWork.set(path, { uninterrupted: uninterrupted ? undefined : true }));
          return;
        }
        case 'open': {
          const node = nodeOf(known);
          if (node && 'tree' in node) onOpen?.('trees', String(node.tree));
          if (node && 'rules' in node) onOpen?.('rules', String(node.rules));
          if (node && 'choice' in node) onOpen?.('choices', String(node.choice));
          return;
        }
        default: {
          const work = PLAIN_COMMANDS[name]!;
          edit((document) => work(document, chosenPaths(known)));
        }
      }
    };

    const go = (to: KnownRow | undefined, extend: boolean): void => {
      if (!to) return;
      const { rows, current, setChosen, focusRow } = latest.current;
      const from = extend ? (anchor.current ?? current ?? to.id) : to.id;
      anchor.current = from;
      focusRow(to.id);
      setChosen(idsBetween(rows, from, to.id));
    };

    /** Moves among the rows; false for any other key. */
    const walk = (press: string, known: KnownRow): boolean => {
      const { rows, setFolded, grid } = latest.current;
      const at = rows.findIndex(({ id }) => id === known.id);
      const isFolded = rows[at + 1]?.around !== known.id && known.row.below > 0;
      const plain = press.replace('Shift+', '');
      const extend = press !== plain;
      switch (plain) {
        case 'ArrowDown':
          go(rows[at + 1], extend);
          return true;
        case 'ArrowUp':
          go(rows[at - 1], extend);
          return true;
        case 'Home':
          go(rows[0], extend);
          return true;
        case 'End':
          go(rows.at(-1), extend);
          return true;
        case 'ArrowLeft':
          if (known.row.below > 0 && !isFolded) setFolded((set) => toggled(set, known.id));
          else
            go(
              rows.find(({ id }) => id === known.around),
              false,
            );
          return true;
        case 'ArrowRight':
          if (isFolded) setFolded((set) => toggled(set, known.id));
          // What is in the row is reached by the keyboard too.
          else
            grid.current
              ?.querySelector<HTMLElement>(
                `[data-id="${CSS.escape(known.id)}"] [data-words] button`,
              )
              ?.focus();
          return true;
        default:
          return false;
      }
    };

    const key = (event: KeyboardEvent<HTMLElement>, known: KnownRow): void => {
      const inside = event.target !== event.currentTarget;
      if (inside) {
        // A field gives its keys up once it is left; then Escape leads back to the row.
        const typing = (event.target as HTMLElement).closest('input, [contenteditable="true"]');
        if (event.key === 'Escape' && !typing && !event.defaultPrevented) {
          event.preventDefault();
          event.currentTarget.focus();
        }
        return;
      }
      const press = pressed(event);
      if (press === 'Escape') {
        // The first leaves the rows to Tab; the second is for what is around them.
        if (!leaving.current) event.preventDefault();
        leaving.current = true;
        latest.current.setTrouble(null);
        return;
      }
      if (leaving.current && press.endsWith('Tab')) {
        leaving.current = false;
        return;
      }
      leaving.current = false;
      const named = commandPressed(ROW_COMMANDS, event);
      if (!walk(press, known) && named === null) return;
      event.preventDefault();
      if (named) command(named, known);
    };

    const row: RowActs = {
      command,
      key,
      more: (known, at) => latest.current.openMenu(known, at),
      set: (known, change) => latest.current.edit(rowWork.set(known.row.path, change)),
      focus: (known) => {
        if (latest.current.current !== known.id) latest.current.setCurrent(known.id);
      },
      choose: (known, extend) => {
        const { rows, current, setChosen, setCurrent } = latest.current;
        anchor.current = extend ? (anchor.current ?? current ?? known.id) : known.id;
        setCurrent(known.id);
        setChosen(idsBetween(rows, anchor.current, known.id));
      },
      fold: (known) => latest.current.setFolded((set) => toggled(set, known.id)),
      drag: (event, known) => {
        event.dataTransfer.setData(DRAGGED, JSON.stringify(known.row.path));
        event.dataTransfer.effectAllowed = 'move';
      },
      over: (event) => {
        if (!event.dataTransfer.types.includes(DRAGGED)) return;
        event.preventDefault();
        event.currentTarget.dataset.drop = dropPlace(event);
      },
      drop: (event, known) => {
        delete event.currentTarget.dataset.drop;
        const text = event.dataTransfer.getData(DRAGGED);
        if (text === '') return;
        event.preventDefault();
        const path = JSON.parse(text) as DocumentPath;
        latest.current.edit(rowWork.drop(path, known.row.path, dropPlace(event)));
      },
    };

    const current = (): KnownRow | undefined => {
      const { rows, current: id } = latest.current;
      return rows.find((known) => known.id === id) ?? rows[0];
    };
    /** Puts the chosen rows on the clipboard; false where that can't be. */
    const copy = (event: ClipboardEvent): boolean => {
      const known = current();
      if (isWriting(event.target) || !known) return false;
      const { documentNow, mind, setTrouble } = latest.current;
      const project = documentNow();
      const content = rowsContent(project, chosenPaths(known));
      if (!content) {
        setTrouble('Rows of trees, rules and actions can be copied, those of one form at a time.');
        return false;
      }
      event.preventDefault();
      event.clipboardData.setData('text/plain', clipText(project, mind, content));
      return true;
    };

    return {
      row,
      copy,
      cut: (event: ClipboardEvent): void => {
        const known = current();
        if (known && copy(event)) command('remove', known);
      },
      paste: (event: ClipboardEvent, paste: Paste): void => {
        const known = current();
        if (isWriting(event.target) || !known) return;
        if (paste(event.clipboardData.getData('text/plain'), { row: known.row.path }))
          event.preventDefault();
      },
      /** Takes what was chosen from the list that was asked for. */
      take: ({ what, known }: Asked, choice: string, made?: ActionDocument): boolean => {
        const { mind, edit, reveal } = latest.current;
        const { path } = known.row;
        if (what === 'find') {
          reveal(choice);
          return true;
        }
        if (what === 'wrap') return edit(rowWork.wrap(chosenPaths(known), choice));
        return edit(rowWork[what](path, mind, choice, made));
      },
    };
  }, []);
}
