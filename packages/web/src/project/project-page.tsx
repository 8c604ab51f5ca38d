import { lazy, Suspense, useEffect, useMemo, useState, type ReactElement } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import styled from 'styled-components';
import { Header } from '../shell/header.tsx';
import { usePanes } from '../shell/use-panes.ts';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { startEngine, type EngineClient } from '../engine/engine-client.ts';
import { EngineProvider } from '../engine/use-engine.tsx';
import { MindsPage } from '../minds/minds-page.tsx';
import { openProject } from '../state/open-project.ts';
import { useSubmitting } from './use-submitting.ts';
import { Dialogs } from './dialogs.tsx';
import { ProjectHeader } from './project-header.tsx';
import { closed } from '../state/project-slice.ts';
import { runInBackground } from '../state/failures.ts';

// The page one comes to first is here at once; the others come when they are opened.
const CastPage = lazy(() =>
  import('../cast/cast-page.tsx').then(({ CastPage: page }) => ({ default: page })),
);
const WeighPage = lazy(() =>
  import('../weigh/weigh-page.tsx').then(({ WeighPage: page }) => ({ default: page })),
);
const WatchPage = lazy(() =>
  import('../watch/watch-page.tsx').then(({ WatchPage: page }) => ({ default: page })),
);
const GroundPage = lazy(() =>
  import('../ground/editor/ground-page.tsx').then(({ GroundPage: page }) => ({ default: page })),
);

const Message = styled.main`
  max-width: 60ch;
  margin: 12vh auto;
  padding: 0 20px;
`;

/** One project: opens it, runs it, and shows the place the address names. */
export function ProjectPage() {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const isOpen = useAppSelector(({ project }) => project.status === 'open' && project.id === id);
  const failure = useAppSelector(({ project }) =>
    project.status === 'failed' ? project.message : null,
  );
  useEffect(() => {
    runInBackground(dispatch(openProject(id)));
    return () => {
      dispatch(closed());
    };
  }, [dispatch, id]);

  const engine = useRunningEngine(id);
  useSubmitting(engine, id);

  if (isOpen && engine)
    return (
      <EngineProvider value={engine} key={id}>
        <Places />
      </EngineProvider>
    );
  return (
    <>
      <Header />
      <Message>
        {failure !== null ? (
          <>
            <p role="alert">{failure}</p>
            <p>
              <Link to="/">All projects</Link>
            </p>
          </>
        ) : (
          <p role="status">Opening …</p>
        )}
      </Message>
    </>
  );
}

/** The engine of a project; it loads while the project is still on its way. */
function useRunningEngine(id: string): EngineClient | null {
  const [engine, setEngine] = useState<EngineClient | null>(null);
  const [starts, setStarts] = useState(0);
  useEffect(() => {
    const started = startEngine(() => setStarts(starts + 1));
    setEngine(started);
    return () => {
      setEngine(null);
      started.end();
    };
  }, [id, starts]);
  return engine;
}

/** The place of an open project that the address names. */
function Places() {
  usePanes();
  const header = useMemo(() => <ProjectHeader />, []);
  const { pathname } = useLocation();
  return (
    <>
      <Suspense fallback={header}>{place(pathname.split('/')[3], header)}</Suspense>
      <Dialogs />
    </>
  );
}

function place(name: string | undefined, header: ReactElement): ReactElement {
  switch (name) {
    case 'ground':
      return <GroundPage header={header} />;
    case 'weigh':
      return <WeighPage header={header} />;
    case 'watch':
      return <WatchPage header={header} />;
    case 'cast':
      return <CastPage header={header} />;
    default:
      return <MindsPage header={header} />;
  }
}
