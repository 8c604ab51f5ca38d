import {
  reasonText,
  ACTIONS,
  exampleAgent,
  exampleProject,
  type LedgerEntry,
  type NodeDocument,
} from '@crooked-lantern/core';
import { useState } from 'react';
import styled from 'styled-components';
import { onlyAgentTitles } from '../engine/entry-titles.ts';
import { entryWords } from '../engine/entry-words.ts';
import { useEngine } from '../engine/use-engine.tsx';
import { Button } from '../ui/button.tsx';
import { runInBackground } from '../state/failures.ts';

const Story = styled.ol`
  max-height: 30vh;
  margin: 6px 0;
  padding: 8px 10px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 6px;
  font-family: var(--mono);
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 8ch minmax(0, 1fr);
  }
  span {
    color: var(--mute);
  }
`;

/** How long an example runs. */
const SECONDS = 12;

const titleOf = (action: string) =>
  Object.entries(ACTIONS).find(([name]) => name === action)?.[1].title ?? action;

/** What an entry of the ledger tells of an example, in words; null where it tells nothing of it. */
function wordsOf(entry: LedgerEntry): string | null {
  switch (entry.kind) {
    case 'begin':
      return entry.row === undefined ? null : `begins “${titleOf(entry.action)}”`;
    case 'end':
      return entry.row === undefined
        ? null
        : `“${titleOf(entry.action)}”: ${entry.ending}${entry.reason ? `, ${reasonText(entry.reason)}` : ''}`;
    case 'did':
      return `does “${titleOf(entry.action)}”`;
    case 'memory':
      return `remembers ${entry.key}: ${entry.value}`;
    case 'forgot':
      return `forgets ${entry.key}`;
    case 'say':
      return `says “${entry.text}”`;
    case 'announced':
    case 'mode':
    case 'score':
    case 'wave':
    case 'came':
    case 'result':
      return entryWords(entry, onlyAgentTitles());
    case 'fired':
      return 'a rule fires';
    default:
      return null;
  }
}

/** Runs an example of the reference where it is read, and tells what came of it. */
export function ExampleRun({ node }: { node: NodeDocument }) {
  const engine = useEngine();
  const [story, setStory] = useState<{ time: string; words: string }[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const run = async () => {
    const tried = await engine.tryOut(exampleProject(node), exampleAgent(node), SECONDS);
    if ('trouble' in tried) return setTrouble(tried.trouble);
    const { entries, ticksPerSecond } = tried;
    setStory(
      entries.flatMap((entry) => {
        const words = wordsOf(entry);
        const time = `${(entry.tick / ticksPerSecond).toFixed(2)} s`;
        return words === null ? [] : [{ time, words }];
      }),
    );
  };
  return (
    <>
      <Button onPress={() => runInBackground(run())}>Run it for {SECONDS} s</Button>
      {trouble && <p role="alert">{trouble}</p>}
      {story && (
        <>
          <p>
            A keeper that sees a gleaner walk by waits 0.6 s, remembers it as quarry, does the
            example, and begins again:
          </p>
          <Story aria-label="What came of it" tabIndex={0}>
            {story.map(({ time, words }, i) => (
              <li key={i}>
                <span>{time}</span> {words}
              </li>
            ))}
          </Story>
        </>
      )}
    </>
  );
}
