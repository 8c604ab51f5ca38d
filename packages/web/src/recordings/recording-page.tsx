import { readRecording, type LedgerEntry, type RecordingHead } from '@crooked-lantern/core';
import { FolderOpen } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { addEntries, createLanes } from '../engine/lanes.ts';
import { Header } from '../shell/header.tsx';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/fields/fields.tsx';
import { usePickFile } from '../ui/pick-file.tsx';
import { clockText } from '../ui/words/time.ts';
import { EntryList } from './entry-list.tsx';
import { RecordedLanes } from './recorded-lanes.tsx';
import { runInBackground } from '../state/failures.ts';

const Page = styled.main`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  gap: 10px;
  height: calc(100vh - 44px);
  padding: 14px;
  h1 {
    font: 600 1.6rem/1.2 var(--title);
  }
  p {
    color: var(--mute);
  }
`;

const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  > div {
    flex: 1;
    min-width: 260px;
  }
`;

const Filters = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  input {
    min-width: 220px;
    padding: 3px 8px;
    border: 1px solid var(--line2);
    border-radius: 6px;
    background: var(--night);
  }
`;

interface Opened {
  name: string;
  head: RecordingHead;
  entries: LedgerEntry[];
}

/** A recording that was exported, looked at without its project. */
export function RecordingPage() {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const open = async (file: File) => {
    const read = readRecording(await file.text());
    if ('trouble' in read) {
      setTrouble(`“${file.name}” was not opened. ${read.trouble}`);
      return;
    }
    setTrouble(null);
    setOpened({ name: file.name, ...read });
  };
  const { pick, input } = usePickFile('.jsonl,application/jsonl', (file) =>
    runInBackground(open(file)),
  );
  return (
    <>
      <Header />
      <Page>
        <Top>
          <div>
            <h1>{opened?.head.title ?? 'A recording'}</h1>
            <p>
              {opened ? (
                <Facts head={opened.head} count={opened.entries.length} />
              ) : (
                'Open one that was exported as JSON Lines, in Watch under Branches. Its project is not needed.'
              )}
            </p>
          </div>
          <Link to="/">All projects</Link>
          <Button onPress={pick}>
            <FolderOpen size={15} /> Open a recording
          </Button>
          {input}
        </Top>
        {trouble && <p role="alert">{trouble}</p>}
        {opened && <Recording key={opened.name} {...opened} />}
      </Page>
    </>
  );
}

function Facts({ head, count }: { head: RecordingHead; count: number }) {
  const { seed, edit, from, to, ticksPerSecond, agents } = head;
  const at = (tick: number) => clockText(tick, ticksPerSecond, 1);
  return `edit ${edit}, seed ${seed}, from ${at(from)} to ${at(to)}, ${agents.length} agents, ${count} entries`;
}

function Recording({ head, entries }: Opened) {
  const [tick, setTick] = useState(head.from);
  const [agent, setAgent] = useState('');
  const [words, setWords] = useState('');
  const lanes = useMemo(() => {
    const made = createLanes();
    addEntries(made, entries);
    return made;
  }, [entries]);
  const agents = head.agents.filter(({ name }) => lanes.byAgent.has(name));
  return (
    <>
      <RecordedLanes head={head} lanes={lanes} agents={agents} tick={tick} onGo={setTick} />
      <div style={{ display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)', gap: 8 }}>
        <Filters>
          <span>at {clockText(tick, head.ticksPerSecond, 2)}</span>
          <Choice
            label="Whose entries"
            value={agent}
            options={[
              { id: '', title: 'entries of all agents' },
              ...agents.map(({ name, title }) => ({ id: name, title })),
            ]}
            onChoose={setAgent}
          />
          <input
            aria-label="Only entries with these words"
            placeholder="with these words"
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
        </Filters>
        <EntryList
          entries={entries}
          agents={head.agents}
          perSecond={head.ticksPerSecond}
          agent={agent}
          words={words}
          tick={tick}
          onGo={setTick}
        />
      </div>
    </>
  );
}
