import { lazy, type ComponentType, type ReactElement } from 'react';
import { MindsPage } from '../minds/minds-page.tsx';

/** A page of a project. */
export interface Place {
  /** Its part of the address. */
  path: string;
  title: string;
  /** What the address says of it besides, as the router reads it. */
  details: string;
  Page: ComponentType<{ header: ReactElement }>;
}

// The page one comes to first is here at once; the others come when they are opened.
const MINDS: Place = { path: 'minds', title: 'Minds', details: '/:mind?', Page: MindsPage };

/** The pages of a project, in the order of the header. A new one needs a line here, and its folder. */
export const PLACES: readonly Place[] = [
  {
    path: 'ground',
    title: 'Ground',
    details: '',
    Page: lazy(async () => ({
      default: (await import('../ground/editor/ground-page.tsx')).GroundPage,
    })),
  },
  {
    path: 'cast',
    title: 'Cast',
    details: '/:part?/:name?',
    Page: lazy(async () => ({ default: (await import('../cast/cast-page.tsx')).CastPage })),
  },
  MINDS,
  {
    path: 'weigh',
    title: 'Weigh',
    details: '/:mind?/:choice?',
    Page: lazy(async () => ({ default: (await import('../weigh/weigh-page.tsx')).WeighPage })),
  },
  {
    path: 'watch',
    title: 'Watch',
    details: '/:view?',
    Page: lazy(async () => ({ default: (await import('../watch/watch-page.tsx')).WatchPage })),
  },
];

/** The place of an address, Minds where it names none. */
export function placeAt(path: string | undefined): Place {
  return PLACES.find((place) => place.path === path) ?? MINDS;
}
