import { madeById } from './made.ts';
import { packageById, type Package } from './packages.ts';
import { latestSnapshot } from './snapshots.ts';
import type { CourseOutline } from '@alforja/core';

/** Where items are taken from: a package by its id, a course by its, and what is made here by its with this before it. */
const OWN_PREFIX = 'own.';
export const ownPlace = (madeId: string): string => `${OWN_PREFIX}${madeId}`;
/** What is made here that a place is; null where it is another. */
export const madeOf = (place: string): string | null =>
  place.startsWith(OWN_PREFIX) ? place.slice(OWN_PREFIX.length) : null;
export const isCourse = (place: string): boolean => madeOf(place) === null && place.includes(':');

/** A place as it stands now: the package that is shown for it, and what its course says beside it. */
export interface PlaceNow {
  readonly held: Package;
  readonly outline: CourseOutline | null;
}

/** @returns null where there is no such place, or it has not been read */
export async function placeNow(place: string): Promise<PlaceNow | null> {
  const own = madeOf(place);
  const look = isCourse(place) ? await latestSnapshot(place) : null;
  const packageId =
    own !== null ? (await madeById(own))?.packageId : (look?.packageId ?? (isCourse(place) ? null : place));
  const held = packageId ? await packageById(packageId) : null;
  return held?.tree && held.readingId !== null ? { held, outline: look?.outline ?? null } : null;
}
