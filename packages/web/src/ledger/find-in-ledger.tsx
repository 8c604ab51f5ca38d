import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useCommands } from '../shell/commands.tsx';
import { useAskText } from '../ui/fields/ask-text.tsx';
import { QuietButton } from '../ui/button.tsx';
import { counted } from '../ui/words/counted.ts';
import { nextMoment } from './moments.ts';
import { runInBackground } from '../state/failures.ts';

const Found = styled.span`
  display: inline-flex;
  align-items: center;
  align-self: flex-start;
  height: 20px;
  padding: 0 4px;
  background: var(--panel);
  color: var(--bone);
  white-space: nowrap;
`;

/** What is looked for in the ledger, and the ticks where it stands. */
export interface LedgerSearch {
  ticks: readonly number[];
  /** How many there are, with the ways from one to the next; null where nothing is looked for. */
  shown: ReactNode;
  dialog: ReactNode;
}

/** Looks for words in what the ledger says: states, events, percepts, results, names. */
export function useLedgerSearch(): LedgerSearch {
  const engine = useEngine();
  const [words, setWords] = useState('');
  const [ticks, setTicks] = useState<readonly number[]>([]);
  // While the run goes on, once a second will do.
  const at = useEngineValue(({ frame, program, branches }) =>
    words === ''
      ? ''
      : `${branches[0]?.id} ${Math.floor((frame?.head ?? 0) / (program?.ticksPerSecond ?? 60))}`,
  );
  useEffect(() => {
    if (words === '') {
      setTicks([]);
      return undefined;
    }
    let isCurrent = true;
    runInBackground(
      engine.find(words).then((found) => {
        if (isCurrent) setTicks(found);
      }),
    );
    return () => {
      isCurrent = false;
    };
  }, [engine, words, at]);
  const go = useCallback(
    (way: 'back' | 'onward') => {
      const to = nextMoment(ticks, engine.frame?.tick ?? 0, way);
      if (to !== undefined) engine.seek(to);
    },
    [engine, ticks],
  );
  const { ask, dialog } = useAskText();
  const find = useCallback(
    () =>
      ask({
        title: 'Find in the ledger',
        label: 'Words: a state, an event, a percept, a result, a name',
        verb: 'Find',
        value: words,
        check: () => null,
        onGive: (text) => {
          setWords(text.trim());
          return null;
        },
      }),
    [ask, words],
  );
  useCommands(
    useMemo(
      () => [
        { id: 'find-ledger', name: 'Find in the ledger …', keys: 'Shift+KeyF', run: find },
        ...(words === ''
          ? []
          : [
              { id: 'find-back', name: 'To what was found before', run: () => go('back') },
              { id: 'find-onward', name: 'To what was found next', run: () => go('onward') },
            ]),
      ],
      [find, words, go],
    ),
    'ledger',
  );
  const shown =
    words === '' ? null : (
      <Found role="status">
        “{words}” {ticks.length === 0 ? 'not found' : `in ${counted(ticks.length, 'tick')}`}
        <QuietButton
          aria-label="To what was found before"
          isDisabled={ticks.length === 0}
          onPress={() => go('back')}
        >
          <ChevronLeft size={13} />
        </QuietButton>
        <QuietButton
          aria-label="To what was found next"
          isDisabled={ticks.length === 0}
          onPress={() => go('onward')}
        >
          <ChevronRight size={13} />
        </QuietButton>
        <QuietButton aria-label="Look for it no longer" onPress={() => setWords('')}>
          <X size={12} />
        </QuietButton>
      </Found>
    );
  return { ticks, shown, dialog };
}
