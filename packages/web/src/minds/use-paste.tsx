import {
  CommandError,
  declareMissing,
  findState,
  looksLikeClip,
  missingFor,
  parentOf,
  pasteNamed,
  pasteRows,
  pasteStates,
  readClip,
  type Clip,
  type DocumentCommand,
  type DocumentPath,
  type Missing,
} from '@crooked-lantern/core';
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { perform } from '../state/perform.ts';
import { useAppDispatch, useDocumentNow } from '../state/store.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { Buttons, Trouble } from './sheet-layout.ts';
import type { Selection } from './use-selection.ts';

/** Where something is pasted: beneath a row, beside a state, or into the mind as a whole. */
type PasteTarget = { row: DocumentPath } | { state: string } | null;

/** What is to be put in, and what it lacks there. */
interface Waiting {
  clip: Clip;
  target: PasteTarget;
  missing: Missing;
}

/** Pastes a text at a target; false where the text is no part of a mind, and another handler must take it. */
export type Paste = (text: string, target: PasteTarget) => boolean;

const PasteContext = createContext<Paste>(() => false);
export const PasteProvider = PasteContext.Provider;
export const usePasteHere = () => useContext(PasteContext);

const WORDS: Record<keyof Missing, string> = {
  memory: 'keys of memory',
  trees: 'trees',
  rules: 'rules',
  choices: 'choices',
  states: 'states that ways lead to',
};

function isComplete(missing: Missing): boolean {
  return Object.values(missing).every((names: readonly string[]) => names.length === 0);
}

/** Reading what was copied, and what is missing here, which is listed and offered. */
export function usePaste(
  { mind, state: chosen }: Selection,
  select: (change: Partial<Selection>) => void,
): { paste: Paste; dialog: ReactNode } {
  const documentNow = useDocumentNow();
  const dispatch = useAppDispatch();
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  const put = useCallback(
    ({ clip, target, missing }: Waiting, bring: boolean) => {
      setWaiting(null);
      const document = documentNow();
      const first = bring ? declareMissing(mind, clip, missing) : [];
      const then = (commands: DocumentCommand[], change?: Partial<Selection>) => {
        const refused = dispatch(
          perform({ command: 'several', what: 'pasting', commands: [...first, ...commands] }),
        );
        setTrouble(refused);
        if (refused === null && change) select(change);
      };
      try {
        if ('states' in clip) {
          const machine = document.minds[mind]?.machine;
          const at = target && 'state' in target ? target.state : chosen;
          const parent = at === null ? undefined : parentOf(machine?.states ?? [], at);
          const among = parent?.states ?? machine?.states ?? [];
          const index = among.findIndex(({ id }) => id === at);
          const { commands, first: made } = pasteStates(document, mind, clip.states, {
            parent: parent?.id ?? null,
            at: index < 0 ? among.length : index + 1,
          });
          then(commands, { state: made, sheet: null });
          return;
        }
        if ('transitions' in clip || 'actions' in clip) {
          const machine = document.minds[mind]?.machine;
          const into = chosen === null ? undefined : findState(machine?.states ?? [], chosen);
          if (!into) throw new CommandError('Choose a state to put this in first.');
          if ('transitions' in clip)
            then(
              clip.transitions.map((transition) => ({
                command: 'addTransition',
                mind,
                state: into.id,
                transition,
              })),
            );
          else
            then([
              {
                command: 'changeState',
                mind,
                state: into.id,
                change: { [clip.on]: [...(into[clip.on] ?? []), ...clip.actions] },
              },
            ]);
          return;
        }
        if ('nodes' in clip || 'rows' in clip) {
          if (!target || !('row' in target))
            throw new CommandError('Choose a row of a tree or of rules to put this beneath.');
          const rows = 'nodes' in clip ? clip.nodes : clip.rows;
          then([pasteRows(document, target.row, rows).command]);
          return;
        }
        const named = pasteNamed(document, mind, clip);
        if (!named) return;
        const { commands, name } = named;
        if ('mind' in clip) then(commands, { mind: name, sheet: null });
        else if ('keys' in clip) then(commands, { sheet: 'memory' });
        else then(commands, { sheet: `${'tree' in clip ? 'trees' : 'rules'}.${name}` });
      } catch (error) {
        if (!(error instanceof CommandError)) throw error;
        setTrouble(error.message);
      }
    },
    [chosen, dispatch, documentNow, mind, select],
  );

  const paste = useCallback<Paste>(
    (text, target) => {
      if (!looksLikeClip(text)) return false;
      try {
        const clip = readClip(text);
        const missing = missingFor(documentNow(), mind, clip);
        const next = { clip, target, missing };
        if (isComplete(missing)) put(next, false);
        else setWaiting(next);
      } catch (error) {
        if (!(error instanceof CommandError)) throw error;
        setTrouble(error.message);
      }
      return true;
    },
    [documentNow, mind, put],
  );

  const dialog = useMemo(
    () => (
      <>
        {trouble && (
          <Dialog title="Not pasted" isOpen onClose={() => setTrouble(null)}>
            <Trouble role="alert">{trouble}</Trouble>
            <Buttons>
              <MainButton onPress={() => setTrouble(null)}>Go on</MainButton>
            </Buttons>
          </Dialog>
        )}
        {waiting && (
          <Dialog title="Missing references" isOpen onClose={() => setWaiting(null)}>
            <p>The pasted part refers to names this mind does not have:</p>
            <ul>
              {(Object.keys(WORDS) as (keyof Missing)[])
                .filter((part) => waiting.missing[part].length > 0)
                .map((part) => (
                  <li key={part}>
                    {WORDS[part]}: <code>{waiting.missing[part].join(', ')}</code>
                    {part === 'states' && '; these ways are left out'}
                  </li>
                ))}
            </ul>
            <Buttons>
              <Button onPress={() => setWaiting(null)}>Cancel</Button>
              <Button onPress={() => put(waiting, false)}>Paste it as it is</Button>
              <MainButton onPress={() => put(waiting, true)}>Bring them along</MainButton>
            </Buttons>
          </Dialog>
        )}
      </>
    ),
    [trouble, waiting, put],
  );
  return { paste, dialog };
}

/** Whether a press of the clipboard's keys is for a field that is being written in. */
export function isWriting(target: EventTarget | null): boolean {
  return (
    target instanceof Element &&
    target.closest('input, textarea, [contenteditable="true"], [role="dialog"]') !== null
  );
}
