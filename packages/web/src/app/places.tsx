import type { ComponentType, ReactElement } from 'react';
import { latePart, type LatePart } from '../loading/late-part.tsx';
import { MindsPage } from '../minds/minds-page.tsx';

interface PageProps {
  header: ReactElement;
}

/** A page of a project. */
export interface Place {
  /** Its part of the address. */
  path: string;
  title: string;
  /** What the address says of it besides, as the router reads it. */
  details: string;
  Page: ComponentType<PageProps> | LatePart<PageProps>;
}

/** A page whose code is loaded when it is opened. Where it can't be, the header stays, which leads on. */
function latePage(load: () => Promise<ComponentType<PageProps>>): LatePart<PageProps> {
  return latePart('this page', load, (missing, { header }) => (
    <>
      {header}
      {missing}
    </>
  ));
}

// The page one comes to first is here at once; the others come when they are opened.
const MINDS: Place = { path: 'minds', title: 'Minds', details: '/:mind?', Page: MindsPage };

/** The pages of a project, in the order of the header. A new one needs a line here, and its folder. */
export const PLACES: readonly Place[] = [
  {
    path: 'ground',
    title: 'Ground',
    details: '',
    Page: latePage(async () => (await import('../ground/editor/ground-page.tsx')).GroundPage),
  },
  {
    path: 'cast',
    title: 'Cast',
    details: '/:part?/:name?',
    Page: latePage(async () => (await import('../cast/cast-page.tsx')).CastPage),
  },
  MINDS,
  {
    path: 'weigh',
    title: 'Weigh',
    details: '/:mind?/:choice?',
    Page: latePage(async () => (await import('../weigh/weigh-page.tsx')).WeighPage),
  },
  {
    path: 'watch',
    title: 'Watch',
    details: '/:view?',
    Page: latePage(async () => (await import('../watch/watch-page.tsx')).WatchPage),
  },
];

/** The pages whose code is loaded when they are opened. */
export const LATE_PAGES = PLACES.flatMap(({ Page }) => ('prepare' in Page ? Page : []));

/** The place of an address, Minds where it names none. */
export function placeAt(path: string | undefined): Place {
  return PLACES.find((place) => place.path === path) ?? MINDS;
}
