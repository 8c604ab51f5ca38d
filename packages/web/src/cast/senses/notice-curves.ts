import {
  CROUCHED_SEEN,
  GAIT_FIELDS,
  numberOf,
  namesOf,
  secondsToNotice,
  type ArchetypeDocument,
  type GaitDocument,
  type SightDocument,
} from '@crooked-lantern/core';

/** How long it takes to be noticed, by distance: the curves beside the cones. */

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** A way to stand there, and how much of it shows: light × posture. */
export interface NoticeCase {
  id: string;
  title: string;
  crouched: boolean;
  lit: boolean;
  exposure: number;
}

export interface NoticePoint {
  distance: number;
  /** By case: seconds until noticed; null for never. */
  seconds: Record<string, number | null>;
}

export function gaitNamed(archetype: ArchetypeDocument, name: string): GaitDocument | undefined {
  if (!Object.hasOwn(archetype.gaits, name)) return undefined;
  const gait = archetype.gaits[name];
  return typeof gait === 'number' ? { speed: gait } : gait;
}

/** What a gait gives away of a body, 0 to 1. */
export function seenOf(gait: GaitDocument): number {
  return numberOf(gait, 'visibility', GAIT_FIELDS.visibility);
}

/** Standing and crouched, in full light and in what light there is everywhere. */
export function noticeCases(target: ArchetypeDocument, light: number): NoticeCase[] {
  const gaits = namesOf(target.gaits).map((name) => gaitNamed(target, name)!);
  const usual = gaitNamed(target, target.gait);
  const standing = usual && !usual.crouched ? usual : gaits.find(({ crouched }) => !crouched);
  const low = gaits.find(({ crouched }) => crouched);
  const postures = [
    { crouched: false, seen: standing ? seenOf(standing) : 1 },
    { crouched: true, seen: low ? seenOf(low) : CROUCHED_SEEN },
  ];
  return [true, false].flatMap((lit) =>
    postures.map(({ crouched, seen }) => ({
      id: `${crouched ? 'crouched' : 'standing'}${lit ? 'Lit' : 'Unlit'}`,
      title: `${crouched ? 'crouched' : 'standing'}, ${lit ? 'lit' : 'unlit'}`,
      crouched,
      lit,
      exposure: seen * (lit ? 1 : light),
    })),
  );
}

/** Who looks, and what counts as noticed. */
export interface NoticeQuestion {
  sight: SightDocument;
  threshold: number;
  /** Seconds from noticing until the minds know. */
  reaction: number;
}

/** Seconds until an agent at a place is noticed; null for never. */
export function noticeTime(
  { sight, threshold, reaction }: NoticeQuestion,
  distance: number,
  angle: number,
  exposure: number,
): number | null {
  const cones = sight.cones.map((cone) => ({ ...cone, halfAngle: radians(cone.halfAngle) }));
  const seconds = secondsToNotice({ cones }, distance, radians(angle), exposure, threshold);
  return Number.isFinite(seconds) ? seconds + reaction : null;
}

export function secondsText(seconds: number | null | undefined): string {
  return seconds === null || seconds === undefined ? 'never' : `${seconds.toFixed(1)} s`;
}

/** How a case is drawn: light by strength, posture by dashes, so that colour is never needed. */
export function strokeOf({ lit, crouched }: NoticeCase) {
  return {
    stroke: lit ? 'var(--sight)' : 'var(--mute)',
    strokeWidth: lit ? 2 : 1.5,
    strokeDasharray: crouched ? '5 4' : undefined,
  };
}

const POINTS = 60;

/** The times over the whole reach, `angle` degrees off the heading. */
export function noticeCurves(
  question: NoticeQuestion,
  cases: readonly NoticeCase[],
  angle: number,
): NoticePoint[] {
  const reach = Math.max(...question.sight.cones.map(({ range }) => range));
  return Array.from({ length: POINTS }, (_, i) => {
    const distance = (reach * (i + 1)) / POINTS;
    const seconds = cases.map(({ id, exposure }): [string, number | null] => [
      id,
      noticeTime(question, distance, angle, exposure),
    ]);
    return { distance, seconds: Object.fromEntries(seconds) };
  });
}

const CEILINGS = [1, 2, 4, 6, 8, 10, 15, 20, 30, 60];

/** Seconds the chart shows: enough for the slowest case over the nearer half. */
export function ceilingOf(points: readonly NoticePoint[]): number {
  const half = points.slice(0, Math.ceil(points.length / 2));
  const slowest = Math.max(
    0,
    ...half.flatMap(({ seconds }) => Object.values(seconds).map((time) => time ?? 0)),
  );
  return CEILINGS.find((ceiling) => ceiling >= slowest) ?? CEILINGS[CEILINGS.length - 1];
}
