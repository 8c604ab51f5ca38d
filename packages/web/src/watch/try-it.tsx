import type { FoundChange, Target } from '@crooked-lantern/core';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { TryAnswer } from '../engine/protocol.ts';
import { useNavigate } from 'react-router';
import { useProject } from '../state/store.ts';
import { watchPath } from './watch-views.tsx';
import { useEngine } from '../engine/use-engine.tsx';
import { useEdit } from '../state/use-edit.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Progress } from '../ui/progress.tsx';
import { clockText } from '../ui/words/time.ts';
import { runInBackground } from '../state/failures.ts';

const Box = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  margin-top: 10px;
  padding: 8px 10px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  p {
    flex-basis: 100%;
  }
  b {
    font-family: var(--mono);
  }
`;

const LOOKED_AT =
  'It tried the numbers of the transitions there, of the choice or the tree it is in, of its senses and of the lamps. It did not try values in memory, other agents and minds, moves, waves, the shape of the ground, texts, or two changes at once.';

/** What was found, and what it would have come to. */
function Found({ found, perSecond }: { found: FoundChange; perSecond: number }) {
  const { words, before, after, entered } = found;
  return (
    <p>
      {words[0].toUpperCase() + words.slice(1)}: <b>{after}</b> in place of <b>{before}</b>. This
      change makes it happen from {clockText(entered, perSecond, 2)} on. The search found no smaller
      change of one number that does. {LOOKED_AT}
    </p>
  );
}

/** Looks for the smallest change of one number that would have had the agent in a state, pick an option or do a row, and makes it. */
export function TryIt({
  agent,
  mind,
  target,
  perSecond,
}: {
  agent: string;
  /** Left out: its first. */
  mind?: string;
  target: Target;
  perSecond: number;
}) {
  const engine = useEngine();
  const navigate = useNavigate();
  const id = useProject((project) => project.id);
  const { run, trouble } = useEdit();
  const [progress, setProgress] = useState<{ tried: number; of: number } | null>(null);
  const [answer, setAnswer] = useState<TryAnswer | null>(null);
  // What is looked for belongs to this question, and ends with it.
  useEffect(() => () => engine.stopLooking(), [engine]);
  const look = async () => {
    setAnswer(null);
    setProgress({ tried: 0, of: 1 });
    const given = await engine.tryChange({ agent, mind, target }, setProgress);
    setProgress(null);
    setAnswer(given);
  };
  const found = answer && 'found' in answer ? answer.found : null;
  const make = () => {
    if (!found || !run(found.command)) return;
    engine.seek(found.from);
    engine.play();
  };
  const [share, setShare] = useState<number | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const show = async ({ command, from, words, before, after }: FoundChange) => {
    setShare(0);
    const name = `${words}: ${after} in place of ${before}`.slice(0, 80);
    const made = await engine.runBeside({ change: command, from, name }, setShare);
    setShare(null);
    if ('trouble' in made) setRefused(made.trouble);
    else
      runInBackground(
        navigate({
          pathname: watchPath(id, 'branches'),
          search: `agent=${agent}&with=${made.id}`,
        }),
      );
  };
  return (
    <Box aria-label="Try it">
      {share !== null && (
        <Progress
          label="The run with the change"
          value={share}
          words={`${Math.round(share * 100)} % of the run with the change`}
          onCancel={() => engine.stopLooking()}
        />
      )}
      {progress ? (
        <Progress
          label="Runs of the past that were tried"
          value={progress.tried}
          of={progress.of}
          words={`run ${progress.tried} of ${progress.of} at most`}
          onCancel={() => engine.stopLooking()}
        />
      ) : (
        <Button onPress={() => runInBackground(look())}>
          Try it: which one number would have changed this?
        </Button>
      )}
      {answer && 'trouble' in answer && <p role="alert">{answer.trouble}</p>}
      {answer && 'found' in answer && !found && (
        <p role="status">
          No single number does it: the time before was run {answer.tried} times. {LOOKED_AT}
        </p>
      )}
      {found && (
        <>
          <div role="status">
            <Found found={found} perSecond={perSecond} />
          </div>
          <Button onPress={() => runInBackground(show(found))}>
            See both runs, with it and without
          </Button>
          <MainButton onPress={make}>
            Make the change, and run on from {clockText(found.from, perSecond, 2)}
          </MainButton>
        </>
      )}
      {(trouble ?? refused) && <p role="alert">{trouble ?? refused}</p>}
    </Box>
  );
}
