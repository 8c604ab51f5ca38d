import { lazy, Suspense, useEffect } from 'react';
import { Provider } from 'react-redux';
import {
  createBrowserRouter,
  isRouteErrorResponse,
  Link,
  Outlet,
  RouterProvider,
  useRouteError,
} from 'react-router';
import styled from 'styled-components';
import { ProjectPage } from '../project/project-page.tsx';
import { GlobalStyle } from '../theme/global-style.ts';
import { applyTheme } from '../state/theme-slice.ts';
import { CommandList } from '../shell/command-list.tsx';
import { CommandProvider } from '../shell/commands.tsx';
import { Header } from '../shell/header.tsx';
import { createStore, useAppSelector } from '../state/store.ts';

const HomePage = lazy(() =>
  import('../home/home-page.tsx').then(({ HomePage: page }) => ({ default: page })),
);

const RecordingPage = lazy(() =>
  import('../recordings/recording-page.tsx').then(({ RecordingPage: page }) => ({
    default: page,
  })),
);

const store = createStore();

function Root() {
  const theme = useAppSelector((state) => state.theme);
  useEffect(() => applyTheme(theme), [theme]);
  return (
    <CommandProvider>
      <Outlet />
      <CommandList />
    </CommandProvider>
  );
}

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

/** What is shown where an address leads nowhere or a page breaks: what happened, and the way back. */
function TroublePage() {
  const error = useRouteError();
  const lost = isRouteErrorResponse(error) && error.status === 404;
  return (
    <CommandProvider>
      <Header />
      <Message>
        <h1>{lost ? 'There is no page here' : 'This page broke'}</h1>
        {lost ? (
          <p>The address may be mistyped.</p>
        ) : (
          <>
            <p>
              What you had saved is safe, and so is what this browser keeps until it is saved. What
              went wrong:
            </p>
            <pre>{error instanceof Error ? error.message : String(error)}</pre>
            <p>
              <a href={window.location.href}>Open this page again</a>
            </p>
          </>
        )}
        <p>
          <Link to="/">All projects</Link>
        </p>
      </Message>
    </CommandProvider>
  );
}

const router = createBrowserRouter([
  {
    element: <Root />,
    errorElement: <TroublePage />,
    children: [
      {
        path: '/',
        element: (
          <Suspense fallback={<Header />}>
            <HomePage />
          </Suspense>
        ),
      },
      {
        path: '/recordings',
        element: (
          <Suspense fallback={<Header />}>
            <RecordingPage />
          </Suspense>
        ),
      },
      { path: '/projects/:id', element: <ProjectPage /> },
      { path: '/projects/:id/ground', element: <ProjectPage /> },
      { path: '/projects/:id/cast', element: <ProjectPage /> },
      { path: '/projects/:id/cast/:part', element: <ProjectPage /> },
      { path: '/projects/:id/cast/:part/:name', element: <ProjectPage /> },
      { path: '/projects/:id/minds', element: <ProjectPage /> },
      { path: '/projects/:id/minds/:mind', element: <ProjectPage /> },
      { path: '/projects/:id/watch', element: <ProjectPage /> },
      { path: '/projects/:id/watch/:view', element: <ProjectPage /> },
      { path: '/projects/:id/weigh', element: <ProjectPage /> },
      { path: '/projects/:id/weigh/:mind', element: <ProjectPage /> },
      { path: '/projects/:id/weigh/:mind/:choice', element: <ProjectPage /> },
    ],
  },
]);

export function App() {
  return (
    <Provider store={store}>
      <GlobalStyle />
      <RouterProvider router={router} />
    </Provider>
  );
}
