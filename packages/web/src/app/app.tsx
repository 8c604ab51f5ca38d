import { Suspense, useEffect } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { Provider } from 'react-redux';
import { BrowserRouter, Link, Route, Routes, useLocation } from 'react-router';
import styled from 'styled-components';
import { PLACES } from './places.tsx';
import { errorOf } from '../state/thrown.ts';
import { ProjectPage } from './project-page.tsx';
import { GlobalStyle } from '../theme/global-style.ts';
import { applyTheme } from '../state/theme-slice.ts';
import { keepFocus } from '../shell/keep-focus.ts';
import { CommandList } from '../shell/command-list.tsx';
import { CommandProvider } from '../shell/commands.tsx';
import { Header } from '../shell/header.tsx';
import { createStore, useAppSelector } from '../state/store.ts';
import { latePart } from '../loading/late-part.tsx';

const HomePage = latePart('the list of projects', () =>
  import('../home/home-page.tsx').then((file) => file.HomePage),
);

const RecordingPage = latePart('the page of recordings', () =>
  import('../recordings/recording-page.tsx').then((file) => file.RecordingPage),
);

const store = createStore();

const Message = styled.main`
  max-width: 60ch;
  margin: 12vh auto;
  padding: 0 20px;
  h1 {
    font: 600 1.6rem var(--title);
  }
  p,
  pre {
    margin: 10px 0;
  }
  pre {
    color: var(--mute);
    font-family: var(--mono);
    white-space: pre-wrap;
  }
`;

function LostPage() {
  return (
    <>
      <Header />
      <Message>
        <h1>There is no page here</h1>
        <p>The address may be mistyped.</p>
        <p>
          <Link to="/">All projects</Link>
        </p>
      </Message>
    </>
  );
}

/** What is shown where a page breaks: what happened, and the way back. */
function BrokenPage({ error }: FallbackProps) {
  return (
    <CommandProvider>
      <Header />
      <Message>
        <h1>This page broke</h1>
        <p>
          What you had saved is safe, and so is what this browser keeps until it is saved. What went
          wrong:
        </p>
        <pre>{errorOf(error).message}</pre>
        <p>
          <a href={window.location.href}>Open this page again</a>
        </p>
        <p>
          <Link to="/">All projects</Link>
        </p>
      </Message>
    </CommandProvider>
  );
}

function Pages() {
  useEffect(() => keepFocus(), []);
  const theme = useAppSelector((state) => state.theme);
  useEffect(() => applyTheme(theme), [theme]);
  const { pathname } = useLocation();
  return (
    // Going on to another address leaves what broke behind.
    <ErrorBoundary FallbackComponent={BrokenPage} resetKeys={[pathname]}>
      <CommandProvider>
        <Suspense fallback={<Header />}>
          <Routes>
            <Route path="/" element={<HomePage />} />
            <Route path="/recordings" element={<RecordingPage />} />
            <Route path="/projects/:id">
              <Route path="" element={<ProjectPage />} />
              {PLACES.map(({ path, details }) => (
                <Route key={path} path={`${path}${details}`} element={<ProjectPage />} />
              ))}
            </Route>
            <Route path="*" element={<LostPage />} />
          </Routes>
        </Suspense>
        <CommandList />
      </CommandProvider>
    </ErrorBoundary>
  );
}

export function App() {
  return (
    <Provider store={store}>
      <GlobalStyle />
      {/* What is chosen is shown at once: as a transition it would begin again with each frame of a run. */}
      <BrowserRouter useTransitions={false}>
        <Pages />
      </BrowserRouter>
    </Provider>
  );
}
