import { Suspense, useEffect, useMemo, useState } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import styled from 'styled-components';
import { Header } from '../shell/header.tsx';
import { usePanes } from '../shell/use-panes.ts';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { startEngine, type EngineClient } from '../engine/engine-client.ts';
import { EngineProvider } from '../engine/use-engine.tsx';
import { openProject } from '../state/open-project.ts';
import { useSubmitting } from '../project/use-submitting.ts';
import { Dialogs, LATE_DIALOGS } from './dialogs.tsx';
import { ProjectHeader } from '../project/project-header.tsx';
import { LATE_PAGES, PLACES, placeAt } from './places.tsx';
import { closed } from '../state/project-slice.ts';
import { ExpressionEditor } from '../expression/expression-field.tsx';
import { prepareWhenIdle } from '../loading/prepare-when-idle.ts';
import { runInBackground } from '../state/failures.ts';

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
  // So that they open at once, also while the server is away.
  useEffect(() => prepareWhenIdle([ExpressionEditor, ...LATE_PAGES, ...LATE_DIALOGS]), []);
  const header = useMemo(() => <ProjectHeader places={PLACES} />, []);
  const { pathname } = useLocation();
  const { Page } = placeAt(pathname.split('/')[3]);
  return (
    <>
      <Suspense fallback={header}>
        <Page header={header} />
      </Suspense>
      <Dialogs />
    </>
  );
}
