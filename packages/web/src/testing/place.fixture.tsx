import type { ProjectDocument } from '@crooked-lantern/core';
import { act, cleanup, render } from '@testing-library/react';
import { Suspense, useEffect } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import type { EngineClient } from '../engine/engine-client.ts';
import { createLanes } from '../engine/lanes.ts';
import { EngineProvider } from '../engine/use-engine.tsx';
import { CommandProvider } from '../shell/commands.tsx';
import { opened } from '../state/project-slice.ts';
import { createStore } from '../state/store.ts';

/** A page of a project in a document without layout or a running engine: what is edited there can be driven fast. */

// What a browser has and the document of the tests lacks.
Object.assign(globalThis, {
  Path2D: class {},
  // The layout of plans and what saves: they never answer.
  Worker: class extends EventTarget {
    postMessage() {}
  },
  // Nothing changes its size.
  ResizeObserver: class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
  fetch: () => new Promise(() => {}),
});
Object.assign(navigator, { getGamepads: () => [] });
// Nothing is laid out: rows are 20 px high, and all of them fit into whatever scrolls.
window.getComputedStyle = (element: Element) =>
  new Proxy((element as HTMLElement).style, {
    get: (own, name) => (name === 'overflowY' ? 'auto' : Reflect.get(own, name)),
  });
Element.prototype.checkVisibility = () => true;
Object.defineProperties(HTMLElement.prototype, {
  clientHeight: { value: 4000 },
  clientWidth: { value: 1000 },
  offsetHeight: { value: 20 },
  offsetWidth: { value: 1000 },
});

// It comes at once here, in the middle of what an editor does; browsers send it afterwards.
document.addEventListener('selectionchange', (event) => event.stopImmediatePropagation(), true);

const { PLACES } = await import('../app/places.tsx');

const RESTING = {
  frame: null,
  program: null,
  lanes: createLanes(),
  tallies: new Map(),
  fights: [],
  branches: [],
  watched: { agent: null, mind: null },
  rowPaths: [],
  onFrame: () => () => {},
  onRestart: () => () => {},
  checkExpression: () => Promise.resolve([]),
  readExpression: () => Promise.resolve([]),
  coverage: () => Promise.resolve(null),
  choicePast: () => Promise.resolve(null),
} satisfies Partial<EngineClient>;

/** An engine before its first frame: it takes every command and knows nothing yet. */
const engine = new Proxy(RESTING as unknown as EngineClient, {
  get: (known, name) => (name in known ? Reflect.get(known, name) : () => {}),
});

/** Lets everything happen that is under way. */
export async function settle(): Promise<void> {
  await act(() => new Promise((resolve) => setTimeout(resolve, 0)));
}

export interface OpenPlace {
  /** Where the page is now. */
  address(): string;
  /** The document as it is now. */
  now(): ProjectDocument;
  /** Takes back whatever was changed. */
  reset(): void;
  close(): void;
}

let shownAddress = '';

function Address() {
  const { pathname, search } = useLocation();
  useEffect(() => {
    shownAddress = `${pathname}${search}`;
  });
  return null;
}

/** @param address what follows the project's id in the address */
export async function openPlace(document: ProjectDocument, address: string): Promise<OpenPlace> {
  const store = createStore();
  const id = 'orchard';
  const reset = () => {
    store.dispatch(opened({ id, edit: 1, document, updatedAt: '2026-01-01T00:00:00Z' }));
  };
  reset();
  render(
    <Provider store={store}>
      <MemoryRouter initialEntries={[`/projects/${id}/${address}`]}>
        <Address />
        <CommandProvider>
          <EngineProvider value={engine}>
            <Suspense>
              <Routes>
                {PLACES.map(({ path, details, Page }) => (
                  <Route
                    key={path}
                    path={`/projects/:id/${path}${details}`}
                    element={<Page header={<header />} />}
                  />
                ))}
              </Routes>
            </Suspense>
          </EngineProvider>
        </CommandProvider>
      </MemoryRouter>
    </Provider>,
  );
  await settle();
  return {
    address: () => shownAddress,
    now: () => {
      const { project } = store.getState();
      if (project.status !== 'open') throw new Error('The project was closed.');
      return project.document;
    },
    reset: () => act(reset),
    close: cleanup,
  };
}
