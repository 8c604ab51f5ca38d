import { namesOf } from '@crooked-lantern/core';
import { useCallback, type ReactNode } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import styled from 'styled-components';
import { GroundView } from '../ground/ground-view.tsx';
import { LedgerPanel } from '../ledger/ledger-panel.tsx';
import { Sheet } from '../minds/sheet-layout.ts';
import { useCopyLinkCommand } from '../minds/use-copy-link.ts';
import { PlacePanes } from '../shell/panes.tsx';
import { useProject } from '../state/store.ts';
import { NARROW, PlaceLayout } from '../ui/place.ts';
import { BreakpointsPanel } from './breakpoints-panel.tsx';
import { AskPanel } from './ask-panel.tsx';
import { MemoryNow } from './memory-now.tsx';
import { BranchesView } from './branches/branches-view.tsx';
import { ObservationsView } from './observations/observations-view.tsx';
import { CoverageView } from './coverage-view.tsx';
import { FollowView } from './follow/follow-view.tsx';
import { useWatching, type Watching } from './use-watching.ts';
import { useWatchView, WatchViews, type WatchView } from './watch-views.tsx';

const Column = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  @media ${NARROW} {
    display: contents;
  }
`;

const Halves = styled.div`
  display: grid;
  grid-template-rows: minmax(0, 1fr) minmax(0, 42%);
  min-height: 0;
  @media ${NARROW} {
    display: contents;
  }
`;

const Details = styled(Tabs)`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  border-top: 1px solid var(--line);
  /* The tab with the focus has its own outline. */
  &[data-focus-visible] {
    outline: none;
  }
  [role='tablist'] {
    display: flex;
    padding: 0 10px;
    background: var(--panel);
  }
  [role='tab'] {
    padding: 4px 8px;
    border-bottom: 2px solid transparent;
    color: var(--mute);
    cursor: default;
    &[data-selected] {
      border-color: var(--bone);
      color: var(--bone);
    }
    &[data-focus-visible] {
      outline: 2px solid var(--sight);
      outline-offset: -2px;
    }
  }
  [role='tabpanel'] {
    display: grid;
    min-height: 0;
  }
`;

/** The question and its answer, with memory and breakpoints below. */
function AskView({ watching }: { watching: Watching }) {
  const count = useProject(({ document }) => namesOf(document.breakpoints ?? {}).length);
  return (
    <Halves>
      <Sheet aria-label="Question and answer">
        <AskPanel watching={watching} />
      </Sheet>
      <Details>
        <TabList aria-label="Details">
          <Tab id="memory">Memory</Tab>
          <Tab id="breakpoints">Breakpoints{count > 0 && ` (${count})`}</Tab>
        </TabList>
        <TabPanel id="memory">
          <MemoryNow agent={watching.agent} />
        </TabPanel>
        <TabPanel id="breakpoints">
          <BreakpointsPanel agent={watching.agent} />
        </TabPanel>
      </Details>
    </Halves>
  );
}

const VIEWS: Record<WatchView, (watching: Watching) => ReactNode> = {
  ask: (watching) => <AskView watching={watching} />,
  follow: ({ agent, thinkers }) => <FollowView agent={agent} thinkers={thinkers} />,
  observations: () => <ObservationsView />,
  coverage: () => <CoverageView />,
  branches: ({ agent }) => <BranchesView agent={agent} />,
};

/** What happened and why: the ground large, questions about the followed agent beside it, the ledger below. */
export function WatchPage({ header }: { header: ReactNode }) {
  const watching = useWatching();
  const { agent, select } = watching;
  const view = useWatchView();
  useCopyLinkCommand();
  const selectAgent = useCallback((name: string) => select({ agent: name }), [select]);
  return (
    <PlaceLayout>
      {header}
      <PlacePanes
        place="watch"
        kept="work"
        work={<GroundView agent={agent} onSelectAgent={selectAgent} />}
        side={{
          name: 'the questions',
          size: '40%',
          least: '260px',
          content: (
            <Column>
              <WatchViews agent={agent} />
              {VIEWS[view](watching)}
            </Column>
          ),
        }}
        ledger={<LedgerPanel agent={agent} onSelectAgent={selectAgent} />}
      />
    </PlaceLayout>
  );
}
