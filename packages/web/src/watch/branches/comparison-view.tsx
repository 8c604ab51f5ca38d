import type { Difference, LedgerEntry, Parting } from '@crooked-lantern/core';
import { Suspense, useCallback, useEffect, useState } from 'react';
import styled from 'styled-components';
import { editWords } from '../../engine/edit-words.ts';
import type { BranchPicture, Comparison, EngineAnswer } from '../../engine/protocol.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { entryTitles } from '../../engine/entry-titles.ts';
import { entryWords } from '../../engine/entry-words.ts';
import { useProject } from '../../state/store.ts';
import { DifferenceRows } from '../../history/difference-list.tsx';
import { PartTitle } from '../../minds/sheet-layout.ts';
import { Button, QuietButton } from '../../ui/button.tsx';
import { Progress } from '../../ui/progress.tsx';
import { clockText } from '../../ui/words/time.ts';
import { AnswerView } from '../answer-view.tsx';
import { useTitleOf } from '../use-title-of.ts';
import { branchTitle } from './branch-words.ts';
import { ComparedLanes } from './compared-lanes.tsx';
import { runInBackground } from '../../state/failures.ts';
import { latePart } from '../../loading/late-part.tsx';

const ComparedFigures = latePart('the figures', () =>
  import('./compared-figures.tsx').then((file) => file.default),
);

const Section = styled.section`
  margin-top: 14px;
  h3 {
    margin: 10px 0 4px;
    font-weight: 600;
  }
`;

const Both = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 14px;
  h4 {
    padding-bottom: 2px;
    border-bottom: 2px solid var(--sight);
    font-weight: 600;
  }
  > section + section h4 {
    border-color: var(--found);
  }
  p {
    color: var(--mute);
  }
`;

/** What was given to the two that differs, in words. */
function Given({
  comparison: { given, changes },
  perSecond,
}: {
  comparison: Comparison;
  perSecond: number;
}) {
  const { inputs, edits, seeds, beginnings } = given;
  const said = [
    inputs !== null && `what players did, from ${clockText(inputs, perSecond, 2)} on`,
    edits && `${editWords(edits[0])} here, ${editWords(edits[1])} there`,
    seeds && `seed ${seeds[0]} here, ${seeds[1]} there`,
    beginnings && 'how they began',
  ].filter((part) => typeof part === 'string');
  return (
    <>
      <p>
        {said.length === 0 ? 'Both were given the same.' : `They were given: ${said.join('; ')}.`}
      </p>
      {changes && <Changes changes={changes} />}
    </>
  );
}

function Changes({ changes }: { changes: readonly Difference[] }) {
  return (
    <>
      <h3>From here to there</h3>
      <DifferenceRows differences={changes} none="The edits make the same." />
    </>
  );
}

function OneSide({
  title,
  entries,
  answer,
  agent,
  perSecond,
}: {
  title: string;
  entries: readonly LedgerEntry[];
  answer: EngineAnswer;
  agent: string;
  perSecond: number;
}) {
  const engine = useEngine();
  const titles = useProject(({ document }) => entryTitles(document));
  const go = useCallback((tick: number) => engine.seek(tick), [engine]);
  return (
    <section>
      <h4>{title}</h4>
      {entries.length === 0 ? (
        <p>It decides nothing of that in this tick.</p>
      ) : (
        <ul>
          {entries.map((entry, i) => (
            <li key={i}>{entryWords(entry, titles)}</li>
          ))}
        </ul>
      )}
      {'answer' in answer ? (
        <AnswerView answer={answer.answer} perSecond={perSecond} agent={agent} onGo={go} />
      ) : (
        <p>{answer.trouble}</p>
      )}
    </section>
  );
}

function Decision({
  comparison: { decision, parting },
  titles,
  perSecond,
}: {
  comparison: Comparison;
  titles: readonly [string, string];
  perSecond: number;
}) {
  const engine = useEngine();
  const titleOf = useTitleOf();
  if (!decision) return parting && <p>All decisions are the same in both.</p>;
  const { tick, agent, entries, answers } = decision;
  const at = clockText(tick, perSecond, 2);
  return (
    <>
      <p style={{ marginTop: 8 }}>
        The first decision that differs is that of <b>{titleOf(agent)}</b>, at{' '}
        <QuietButton aria-label={`To that decision, ${at}`} onPress={() => engine.seek(tick)}>
          {at}
        </QuietButton>
      </p>
      <Both>
        {([0, 1] as const).map((side) => (
          <OneSide
            key={side}
            title={titles[side]}
            entries={entries[side]}
            answer={answers[side]}
            agent={agent}
            perSecond={perSecond}
          />
        ))}
      </Both>
    </>
  );
}

function PartingWords({ parting, perSecond }: { parting: Parting; perSecond: number }) {
  const engine = useEngine();
  const titleOf = useTitleOf();
  const { tick, agent, apart } = parting;
  const at = clockText(tick, perSecond, 2);
  return (
    <p>
      They part at{' '}
      <QuietButton aria-label={`To where they part, ${at}`} onPress={() => engine.seek(tick)}>
        {at}
      </QuietButton>
      (tick {tick}): <b>{titleOf(agent)}</b> is the first to differ
      {Number.isNaN(apart) && ', and is there in one of them only'}
      {apart > 0 && `, ${apart < 0.01 ? 'less than 0.01' : apart.toFixed(2)} m apart`}.
    </p>
  );
}

/** The run that goes on compared with a branch: where they part and why, their lanes and their figures. */
export function ComparisonView({ branch, agent }: { branch: BranchPicture; agent: string | null }) {
  const engine = useEngine();
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const current = useEngineValue(({ branches }) => branches[0]);
  const [share, setShare] = useState<number | null>(0);
  const [result, setResult] = useState<Comparison | { trouble: string } | null>(null);
  const { id } = branch;
  const compare = useCallback(async () => {
    setShare(0);
    const given = await engine.compare(id, setShare);
    setShare(null);
    setResult(given);
  }, [engine, id]);
  useEffect(() => {
    runInBackground(compare());
    return () => engine.stopLooking();
  }, [engine, compare]);
  const titles = [branchTitle(current), branchTitle(branch)] as const;
  return (
    <Section aria-label="Comparison" aria-live="polite" aria-busy={share !== null}>
      <PartTitle>
        {titles[0]} and {titles[1]}
      </PartTitle>
      {share !== null && (
        <Progress
          label="Looking for where they part"
          value={share}
          words="looking for where they part"
          onCancel={() => engine.stopLooking()}
        />
      )}
      {result && 'trouble' in result && <p role="alert">{result.trouble}</p>}
      {result && 'figures' in result && (
        <>
          {result.parting ? (
            <PartingWords parting={result.parting} perSecond={perSecond} />
          ) : (
            <p>
              They do not part: until {clockText(result.until, perSecond, 1)} everybody is in the
              same place and does the same.
            </p>
          )}
          <Given comparison={result} perSecond={perSecond} />
          <ComparedLanes comparison={result} titles={titles} agent={agent} />
          <Decision comparison={result} titles={titles} perSecond={perSecond} />
          <Suspense fallback={<p aria-busy />}>
            <ComparedFigures comparison={result} titles={titles} agent={agent} />
          </Suspense>
        </>
      )}
      {share === null && (
        <Button onPress={() => runInBackground(compare())}>Compare again, as they are now</Button>
      )}
    </Section>
  );
}
