import { namesOf } from '@crooked-lantern/core';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import type { RunBeside } from '../../engine/protocol.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { PartTitle, Sheet, Trouble } from '../../minds/sheet-layout.ts';
import { useProject } from '../../state/store.ts';
import { QuietButton } from '../../ui/button.tsx';
import { Menu } from '../../ui/overlays/menu.tsx';
import { Progress } from '../../ui/progress.tsx';
import { useRunExports } from '../use-export.ts';
import { BranchList } from './branch-list.tsx';
import { ComparisonView } from './comparison-view.tsx';
import { runInBackground } from '../../state/failures.ts';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
`;

const Beside = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 4px;
  padding: 6px 4px;
  color: var(--mute);
`;

/** Runs what was played again, with one thing that differs, and compares the two. */
function RunAgain({ onMade }: { onMade: (id: number) => void }) {
  const engine = useEngine();
  const seed = useEngineValue(({ frame }) => frame?.seed ?? 1);
  const setups = useProject((project) => project.document.setups);
  const [share, setShare] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => () => engine.stopLooking(), [engine]);
  const make = async (how: RunBeside) => {
    setTrouble(null);
    setShare(0);
    const made = await engine.runBeside(how, setShare);
    setShare(null);
    if ('id' in made) onMade(made.id);
    else setTrouble(made.trouble);
  };
  if (share !== null)
    return (
      <Beside>
        <Progress
          label="The run beside"
          value={share}
          words={`${Math.round(share * 100)} %`}
          onCancel={() => engine.stopLooking()}
        />
      </Beside>
    );
  return (
    <Beside>
      The same keys again:
      <QuietButton onPress={() => runInBackground(make({ seed: seed + 1 }))}>
        with seed {seed + 1}
      </QuietButton>
      <QuietButton onPress={() => runInBackground(make({ edit: true }))}>
        from the start, as it is edited now
      </QuietButton>
      {namesOf(setups ?? {}).length > 0 && (
        <Menu
          label="From another start"
          entries={namesOf(setups!).map((name) => ({
            id: name,
            text: setups![name].title,
            label: setups![name].title,
            onAction: () => runInBackground(make({ setup: name })),
          }))}
        >
          <QuietButton>from another start …</QuietButton>
        </Menu>
      )}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Beside>
  );
}

/** The branches of the run, and the one that goes on compared with another. */
export function BranchesView({ agent }: { agent: string | null }) {
  const [search, setSearch] = useSearchParams();
  const branches = useEngineValue((client) => client.branches);
  const wanted = Number(search.get('with'));
  const compared = branches.slice(1).find(({ id }) => id === wanted) ?? null;
  const exports = useRunExports();
  const compare = (id: number) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before);
        after.set('with', String(id));
        return after;
      },
      { replace: true },
    );
  return (
    <Sheet aria-label="Branches of the run">
      <Head>
        <PartTitle>Branches</PartTitle>
        <Menu
          label="Export the recording"
          entries={exports.map(({ id, name, run }) => ({
            id,
            text: name,
            label: name,
            onAction: run,
          }))}
        >
          <QuietButton>
            <Download size={13} /> export the recording …
          </QuietButton>
        </Menu>
      </Head>
      <BranchList compared={compared?.id ?? null} onCompare={compare} />
      <RunAgain onMade={compare} />
      {compared ? (
        <ComparisonView key={`${compared.id} ${branches[0].id}`} branch={compared} agent={agent} />
      ) : branches.length < 2 ? (
        <p>
          There is one branch so far. Go back in the run, press a key or make an edit, and run on:
          the earlier way is kept here. Branches without a name are deleted when six newer ones
          exist.
        </p>
      ) : (
        <p>Choose one to compare with.</p>
      )}
    </Sheet>
  );
}
