import { GROUND_VIEWS, namesOf, USUAL_VIEW, type GroundDocument } from '@crooked-lantern/core';
import {
  Circle,
  DoorOpen,
  Flag,
  Lamp,
  MapPin,
  MousePointer2,
  Package,
  Route,
  Shrub,
  Square,
  SquareDashed,
  User,
  BrickWall,
  Minus,
  type LucideIcon,
} from 'lucide-react';
import type { PointDocument, ProjectDocument } from '@crooked-lantern/core';
import type { AnyPart, PartKind } from './parts.ts';

/** What can be put on a ground, and how. */

export interface Tool {
  id: string;
  title: string;
  icon: LucideIcon;
  /** Null for choosing what is there. */
  kind: PartKind | null;
  /** Drawn out as a box, clicked in place, or clicked point by point. */
  how: 'choose' | 'box' | 'point' | 'points';
  /** First part of the names it gives. */
  stem: string;
  make?: (document: ProjectDocument, at: PointDocument, size: PointDocument) => AnyPart;
}

const wall = (id: string, title: string, icon: LucideIcon, kind?: string): Tool => ({
  id,
  title,
  icon,
  kind: 'walls',
  how: 'box',
  stem: 'wall',
  make: (_, at, size) => ({ ...(kind ? { kind } : {}), at, size }),
});

export const TOOLS: readonly Tool[] = [
  { id: 'choose', title: 'Choose', icon: MousePointer2, kind: null, how: 'choose', stem: '' },
  wall('wall', 'Wall', BrickWall),
  wall('hedge', 'Hedge', Shrub, 'hedge'),
  wall('low', 'Low cover', Minus, 'low'),
  {
    id: 'gate',
    title: 'Gate',
    icon: DoorOpen,
    kind: 'gates',
    how: 'box',
    stem: 'gate',
    make: (_, at, size) => ({ at, size }),
  },
  {
    id: 'plate',
    title: 'Plate',
    icon: Square,
    kind: 'plates',
    how: 'box',
    stem: 'plate',
    make: (document, at, size) => {
      const { gates = {} } = document.grounds[document.start.ground];
      return { at, size, opens: namesOf(gates)[0] ?? 'gate' };
    },
  },
  {
    id: 'lamp',
    title: 'Lamp',
    icon: Lamp,
    kind: 'lamps',
    how: 'point',
    stem: 'lamp',
    make: (_, at) => ({ at, reach: 5, strength: 0.8 }),
  },
  {
    id: 'basket',
    title: 'Basket',
    icon: Package,
    kind: 'things',
    how: 'point',
    stem: 'basket',
    make: (_, at) => ({ kind: 'basket', at }),
  },
  {
    id: 'fruit',
    title: 'Fruit',
    icon: Circle,
    kind: 'things',
    how: 'point',
    stem: 'fruit',
    make: (_, at) => ({ kind: 'fruit', at }),
  },
  {
    id: 'route',
    title: 'Route',
    icon: Route,
    kind: 'routes',
    how: 'points',
    stem: 'round',
  },
  {
    id: 'post',
    title: 'Post',
    icon: Flag,
    kind: 'posts',
    how: 'point',
    stem: 'post',
    make: (_, at) => ({ at, heading: 0 }),
  },
  {
    id: 'spawn',
    title: 'Spawn place',
    icon: MapPin,
    kind: 'spawns',
    how: 'point',
    stem: 'spawn',
    make: (_, at) => ({ at }),
  },
  {
    id: 'zone',
    title: 'Zone',
    icon: SquareDashed,
    kind: 'zones',
    how: 'box',
    stem: 'zone',
    make: (_, at, size) => ({ at, size }),
  },
  { id: 'agent', title: 'Agent', icon: User, kind: 'agents', how: 'point', stem: 'agent' },
];

/** The tools for what a ground of its view can have. */
export function toolsFor({ view = USUAL_VIEW }: GroundDocument): readonly Tool[] {
  const parts: readonly string[] = GROUND_VIEWS[view].parts;
  return TOOLS.filter(({ kind }) => kind === null || parts.includes(kind));
}
