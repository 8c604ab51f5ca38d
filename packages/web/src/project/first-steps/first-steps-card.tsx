import { Check, Circle } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { useEngine } from '../../engine/use-engine.tsx';
import { useCommands } from '../../shell/commands.tsx';
import { useProject } from '../../state/store.ts';
import { QuietButton } from '../../ui/button.tsx';
import { isDemo, keepSteps, readSteps, STEPS, stepsDone, type StepId } from './steps.ts';

const Card = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  padding: 4px 14px;
  border-bottom: 1px solid var(--line);
  background: var(--panel);
  h2 {
    font-weight: 600;
  }
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    list-style: none;
  }
  li {
    display: flex;
    align-items: center;
    gap: 5px;
  }
  li[data-done='true'] {
    color: var(--mute);
  }
  svg {
    color: var(--done);
  }
  p {
    flex: 1;
    min-width: 30ch;
    color: var(--mute);
    /* Where there is little height, the ground needs it. */
    @media (max-height: 560px) {
      display: none;
    }
  }
`;

const ALL = Object.keys(STEPS) as StepId[];

/** Five things to do first in a demo, ticked off as they are done, until the card is put away. */
export function FirstStepsCard() {
  const id = useProject((project) => project.id);
  const [steps, setSteps] = useState(readSteps);
  useCommands(
    useMemo(
      () => [
        {
          id: 'first-steps',
          name: 'First steps: show them again',
          disabled: isDemo(id) ? undefined : 'they are for the demos',
          run: () => setSteps({ done: [], isAway: false }),
        },
      ],
      [id],
    ),
  );
  useEffect(() => keepSteps(steps), [steps]);
  if (!isDemo(id) || steps.isAway) return null;
  return (
    <OpenCard
      done={steps.done}
      onDone={(now) => setSteps((before) => ({ ...before, done: [...before.done, ...now] }))}
      onAway={() => setSteps((before) => ({ ...before, isAway: true }))}
    />
  );
}

function OpenCard({
  done,
  onDone,
  onAway,
}: {
  done: readonly StepId[];
  onDone: (now: StepId[]) => void;
  onAway: () => void;
}) {
  const engine = useEngine();
  const { pathname, search } = useLocation();
  // What earlier visits have changed has no document here.
  const lastChange = useProject(({ past }) => {
    const last = past.at(-1);
    return last?.document ? last.label : '';
  });
  const wasBack = useRef(false);
  const open = useMemo(() => ALL.filter((step) => !done.includes(step)), [done]);
  useEffect(() => {
    const look = () => {
      const { frame, lanes, program } = engine;
      const now = stepsDone(open, {
        lanes,
        player: program?.agents[frame?.played ?? -1]?.name ?? '',
        frame,
        wasBack: wasBack.current,
        isAsking: pathname.endsWith('/watch') && frame?.playing === false,
        lastChange,
      });
      if (frame) wasBack.current = !frame.playing && frame.tick < frame.head;
      if (now.length > 0) onDone(now);
    };
    look();
    let looked = -1;
    return engine.onFrame(() => {
      const { frame, program } = engine;
      // All that was seen so far is gone through: a few times a second is enough.
      const now = Math.floor(((frame?.tick ?? 0) / (program?.ticksPerSecond ?? 60)) * 4);
      if (now === looked && frame?.playing === !wasBack.current) return;
      looked = now;
      look();
    });
  }, [engine, open, pathname, search, lastChange, onDone]);
  const [next] = open;
  return (
    <Card aria-label="First steps">
      <h2>First steps</h2>
      <ol>
        {ALL.map((step) => {
          const isDone = done.includes(step);
          return (
            <li
              key={step}
              data-done={isDone}
              aria-label={isDone ? `${STEPS[step].title}: done` : undefined}
            >
              {isDone ? <Check size={14} aria-hidden /> : <Circle size={12} aria-hidden />}
              {STEPS[step].title}
            </li>
          );
        })}
      </ol>
      <p role="status">
        {next
          ? `Next: ${STEPS[next].how}`
          : 'All five are done. F1 opens the reference, ? the shortcuts.'}
      </p>
      <QuietButton onPress={onAway}>Put away</QuietButton>
    </Card>
  );
}
