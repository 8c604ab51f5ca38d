import { lazy, Suspense, useEffect, useMemo, useRef, useState, type ReactElement } from 'react';
import { readProject, type ProjectDocument } from '@crooked-lantern/core';
import { Link, useLocation, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { Header } from '../shell/header.tsx';
import { usePanes } from '../shell/use-panes.ts';
import { useAppDispatch, useAppSelector, useAppStore } from '../state/store.ts';
import { startEngine, type EngineClient } from '../engine/engine-client.ts';
import { inputsOfText } from '../engine/link-input.ts';
import { EngineProvider } from '../engine/use-engine.tsx';
import { MindsPage } from '../minds/minds-page.tsx';
import { openProject } from '../state/open-project.ts';
import { Dialogs } from './dialogs.tsx';
import { ProjectHeader } from './project-header.tsx';
import { checked, closed } from '../state/project-slice.ts';

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
    void dispatch(openProject(id));
    return () => {
      dispatch(closed());
    };
  }, [dispatch, id]);

  const engine = useRunningEngine(id);

  if (isOpen && engine)
    return (
      <EngineProvider value={engine} key={id}>
        <Running engine={engine} />
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
  useEffect(() => {
    const started = startEngine();
    setEngine(started);
    return () => {
      setEngine(null);
      started.end();
    };
  }, [id]);
  return engine;
}

/** A whole number of an address; null for anything else. */
function numberOf(text: string | null): number | null {
  return text !== null && /^\d+$/.test(text) ? Number(text) : null;
}

/** Goes to the moment that an address names, with what players did until then; without one it plays. */
async function openMoment(
  engine: EngineClient,
  { tick, seed, keys }: { tick: number | null; seed: number | null; keys: string | null },
): Promise<void> {
  const inputs = keys === null ? null : await inputsOfText(keys);
  if (inputs && seed !== null && tick !== null) {
    engine.replay({ seed, inputs }, tick);
    return;
  }
  if (seed !== null) engine.restart(seed);
  if (tick !== null) engine.seek(tick);
  else engine.play();
}

/** Hands every edit to the engine; the first that runs begins to play, unless the address names a tick. */
function Running({ engine }: { engine: EngineClient }) {
  const store = useAppStore();
  const [search] = useSearchParams();
  const begin = useRef({
    tick: search.get('tick'),
    seed: search.get('seed'),
    keys: search.get('keys'),
    begun: false,
  });
  useEffect(() => {
    let current = true;
    let latest: ProjectDocument | null = null;
    // The engine checks an edit while the page is still being drawn with it.
    const submit = () => {
      const { project } = store.getState();
      if (project.status !== 'open' || project.document === latest) return;
      const { document, edit } = project;
      latest = document;
      // What has not changed since the edit before is not looked at again, as it would be over there.
      const hasForm = readProject(document).ok;
      void engine.submit(document, edit, hasForm).then(({ findings, runs }) => {
        if (!current || latest !== document) return;
        store.dispatch(checked({ edit, findings, runs }));
        const { tick, seed, keys, begun } = begin.current;
        if (!runs || begun) return;
        begin.current.begun = true;
        void openMoment(engine, {
          tick: numberOf(tick),
          seed: numberOf(seed),
          keys,
        });
      });
    };
    submit();
    const unsubscribe = store.subscribe(submit);
    return () => {
      current = false;
      unsubscribe();
    };
  }, [engine, store]);
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
