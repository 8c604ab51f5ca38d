import type { ComponentType, ReactElement, ReactNode } from 'react';
import { latePart, type LatePart } from '../loading/late-part.tsx';
import { MindsPage } from '../minds/minds-page.tsx';

/** A page of a project. */
export interface Place {
  /** Its part of the address. */
  path: string;
  title: string;
  /** What the address says of it besides, as the router reads it. */
  details: string;
  Page: ComponentType<{ header: ReactElement }> | LatePart<{ header: ReactElement }>;
}

/** A page that can't be loaded leaves the header, which leads on. */
function belowHeader(missing: ReactNode, { header }: { header: ReactElement }): ReactNode {
  return (
    <>
      {header}
      {missing}
    </>
  );
}

// The page one comes to first is here at once; the others come when they are opened.
const MINDS: Place = { path: 'minds', title: 'Minds', details: '/:mind?', Page: MindsPage };

/** The pages of a project, in the order of the header. A new one needs a line here, and its folder. */
export const PLACES: readonly Place[] = [
  {
    path: 'ground',
    title: 'Ground',
    details: '',
    Page: latePart(
      'this page',
      async () => (await import('../ground/editor/ground-page.tsx')).GroundPage,
      belowHeader,
    ),
  },
  {
    path: 'cast',
    title: 'Cast',
    details: '/:part?/:name?',
    Page: latePart(
      'this page',
      async () => (await import('../cast/cast-page.tsx')).CastPage,
      belowHeader,
    ),
  },
  MINDS,
  {
    path: 'weigh',
    title: 'Weigh',
    details: '/:mind?/:choice?',
    Page: latePart(
      'this page',
      async () => (await import('../weigh/weigh-page.tsx')).WeighPage,
      belowHeader,
    ),
  },
  {
    path: 'watch',
    title: 'Watch',
    details: '/:view?',
    Page: latePart(
      'this page',
      async () => (await import('../watch/watch-page.tsx')).WatchPage,
      belowHeader,
    ),
  },
];

/** The pages whose code is loaded when they are opened. */
export const LATE_PAGES = PLACES.flatMap(({ Page }) => ('prepare' in Page ? Page : []));

/** The place of an address, Minds where it names none. */
export function placeAt(path: string | undefined): Place {
  return PLACES.find((place) => place.path === path) ?? MINDS;
}
