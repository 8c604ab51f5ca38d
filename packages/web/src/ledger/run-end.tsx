import type { GamePicture } from '@crooked-lantern/core';
import { useEngineValue } from '../engine/use-engine.tsx';
import { useAsk } from '../shell/use-ask.ts';
import { QuietButton } from '../ui/button.tsx';
import { clockText } from '../ui/words/time.ts';

/** How a run can end, in words. */
export const RESULT_WORDS: Record<NonNullable<GamePicture['result']>['how'], string> = {
  won: 'Won',
  lost: 'Lost',
  over: 'It is over',
};

/** That the run has ended, when and how, on every page; pressed, it asks why. */
export function RunEnd() {
  const ask = useAsk();
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const ended = useEngineValue(({ frame }) => {
    const result = frame?.game?.result;
    return result ? `${result.tick} ${RESULT_WORDS[result.how]}` : '';
  });
  if (ended === '') return null;
  const [tick, ...words] = ended.split(' ');
  const text = `${words.join(' ')} at ${clockText(Number(tick), perSecond, 1)}`;
  return (
    <QuietButton
      aria-label={`${text}. Ask why the run ended`}
      onPress={() => ask({ agent: null, asking: { ask: 'ended' } })}
    >
      {text}: why?
    </QuietButton>
  );
}
