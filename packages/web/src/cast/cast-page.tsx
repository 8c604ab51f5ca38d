import { useEffect, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { useEngine } from '../engine/use-engine.tsx';
import { GroundView } from '../ground/ground-view.tsx';
import { LedgerPanel } from '../ledger/ledger-panel.tsx';
import { PlacePanes } from '../shell/panes.tsx';
import { NARROW, PlaceLayout } from '../ui/place.ts';
import { AgentForm } from './agent-form.tsx';
import { ArchetypeForm } from './archetype-form.tsx';
import { CastList } from './cast-list.tsx';
import { FactionTable } from './faction-table.tsx';
import { PlayerForm } from './player-form.tsx';
import { SensesPanel } from './senses/senses-panel.tsx';
import { SetupForm } from './setup-form.tsx';
import { SquadForm } from './squad-form.tsx';
import { agentEditor, archetypeEditor, useCast, type CastEditor } from './use-cast.ts';

const Work = styled.div`
  display: grid;
  grid-template-columns: minmax(252px, 5fr) minmax(0, 6fr);
  min-width: 0;
  min-height: 0;
  @media ${NARROW} {
    grid-template-columns: minmax(0, 1fr);
    > * {
      min-height: 420px;
    }
  }
`;

function Chosen({ cast }: { cast: CastEditor }) {
  const { selection, document } = cast;
  switch (selection.part) {
    case 'squads':
      return <SquadForm key={selection.name} cast={cast} />;
    case 'factions':
      return <FactionTable cast={cast} />;
    case 'setups':
      return <SetupForm key={selection.name} cast={cast} />;
    case 'players':
      return <PlayerForm key={selection.name} cast={cast} />;
    case 'archetypes':
    case 'agents': {
      const isAgent = selection.part === 'agents';
      const kind = (isAgent ? agentEditor : archetypeEditor)(cast, selection.name);
      return (
        <>
          {isAgent ? (
            <AgentForm key={selection.name} cast={cast} />
          ) : (
            <ArchetypeForm key={selection.name} cast={cast} />
          )}
          {kind && <SensesPanel key={kind.path} editor={kind} document={document} />}
        </>
      );
    }
  }
}

/** The cast: archetypes and the agents made from them, squads, factions, ways to begin. */
export function CastPage({ header }: { header: ReactNode }) {
  const engine = useEngine();
  const cast = useCast();
  const { selection, select } = cast;
  const [watched, setWatched] = useState<string | null>(null);
  const shown = selection.part === 'agents' ? selection.name : watched;
  useEffect(() => engine.watch(shown, null, null), [engine, shown]);
  const watch = (agent: string) => {
    setWatched(agent);
    if (selection.part === 'agents') select('agents', agent);
  };
  return (
    <PlaceLayout>
      {header}
      <PlacePanes
        place="cast"
        list={{
          name: 'the cast',
          size: '198px',
          least: '120px',
          content: <CastList cast={cast} />,
        }}
        work={
          <Work>
            <Chosen cast={cast} />
          </Work>
        }
        side={{
          name: 'the ground',
          size: '28%',
          least: '220px',
          content: <GroundView agent={shown} onSelectAgent={watch} />,
        }}
        kept="side"
        ledger={<LedgerPanel agent={shown} onSelectAgent={watch} />}
      />
    </PlaceLayout>
  );
}
