import type { Statement } from '@crooked-lantern/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { useEngine, useEngineValue, useRestingTick } from '../engine/use-engine.tsx';
import { useProject } from '../state/store.ts';
import { Button, QuietButton } from '../ui/button.tsx';
import { Choice } from '../ui/fields/fields.tsx';
import { Progress } from '../ui/progress.tsx';
import { clockText } from '../ui/words/time.ts';
import { Undo2 } from 'lucide-react';
import { AnswerView } from './answer-view.tsx';
import { TryIt } from './try-it.tsx';
import { questionOf, questionText } from '../engine/asking-address.ts';
import { targetsOf } from './targets.ts';
import { useAnswer, type FarBack } from './use-answer.ts';
import type { Watching } from './use-watching.ts';

const Question = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  padding: 8px 10px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--raised);
  h2 {
    font-weight: 600;
  }
  small {
    margin-left: auto;
    color: var(--mute);
    font-family: var(--mono);
    font-size: 1em;
  }
`;

const Answer = styled.div`
  margin: 8px 0 0 2px;
  p {
    color: var(--mute);
  }
`;

/** The way back to the moment that was asked about before an answer led elsewhere. */
function useWayBack() {
  const engine = useEngine();
  const from = useRef<number | null>(null);
  // While it goes on there is no way back.
  const tick = useRestingTick();
  if (tick === null || from.current === tick) from.current = null;
  return {
    back: from.current,
    go: (to: number) => {
      from.current ??= tick;
      engine.seek(to);
    },
    goBack: () => {
      if (from.current !== null) engine.seek(from.current);
    },
  };
}

/** How far back was looked for an answer, and the way to look farther. */
function LookedFrom({
  answer: { lookedFrom },
  perSecond,
  farBack: { share, look },
}: {
  answer: Statement;
  perSecond: number;
  farBack: FarBack;
}) {
  const engine = useEngine();
  if (share !== null)
    return (
      <Progress
        label="Looking through the run"
        value={share}
        words={`${Math.round(share * 100)} % of the run`}
        onCancel={() => engine.stopLooking()}
      />
    );
  if (lookedFrom === undefined) return null;
  return (
    <p>
      Looked back to {clockText(lookedFrom, perSecond, 1)}
      <QuietButton onPress={look}>look through all of the run</QuietButton>
    </p>
  );
}

/** A question about the followed agent at the tick that is shown, and its answer. */
export function AskPanel({ watching }: { watching: Watching }) {
  const engine = useEngine();
  const document = useProject((project) => project.document);
  const { thinkers, agent, asking, mind, select } = watching;
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const tick = useRestingTick();
  const { answer, farBack } = useAnswer(agent, asking, mind);
  const { back, go, goBack } = useWayBack();
  if (agent === null) return <p>No agent here has a mind, so nothing is decided.</p>;
  const targets = targetsOf(document, agent);
  return (
    <>
      <Question>
        <h2>Ask</h2>
        <Choice
          label="Agent"
          value={agent}
          options={thinkers}
          onChoose={(id) => select({ agent: id })}
        />
        <Choice
          label="What is asked"
          value={questionText({ asking, mind })}
          options={targets}
          onChoose={(id) => select(questionOf(id))}
        />
        {tick !== null && <small>at {clockText(tick, perSecond, 2)}</small>}
        {back !== null && (
          <QuietButton onPress={goBack}>
            <Undo2 size={13} /> back to {clockText(back, perSecond, 2)}
          </QuietButton>
        )}
      </Question>
      <Answer aria-live="polite" aria-busy={tick !== null && answer === null}>
        {tick === null ? (
          <>
            <p>An answer is about one moment.</p>
            <Button onPress={() => engine.pause()}>Pause and ask</Button>
          </>
        ) : answer === null ? (
          <p>Running it again with full attention …</p>
        ) : 'trouble' in answer ? (
          <p role="alert">{answer.trouble}</p>
        ) : (
          <>
            <LookedFrom answer={answer.answer} perSecond={perSecond} farBack={farBack} />
            <AnswerView answer={answer.answer} perSecond={perSecond} agent={agent} onGo={go} />
            {asking.ask === 'whyNot' && !answer.answer.holds && (
              <TryIt
                key={`${agent} ${questionText({ asking, mind })} ${tick}`}
                agent={agent}
                mind={mind}
                target={asking.target}
                perSecond={perSecond}
              />
            )}
          </>
        )}
      </Answer>
    </>
  );
}
