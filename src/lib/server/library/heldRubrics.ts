import { checkRubrics, find, RUBRIC_TARGETS, rubricDifferences, type RubricTarget } from '@alforja/core';
import type { RubricListing } from '../../shared/types.ts';
import { listOwnRubrics, ownRubricById, type OwnRubric } from '../store/ownRubrics.ts';
import { listed, shown, type HeldRubric, type RubricAsked, type ShownRubric } from '../work/heldRubrics.ts';
import { worked } from './worked.ts';

/** The place of rubrics that were made or copied here. */
export const OWN = 'own';

const ownView = ({ rubric, follows, changedAt }: OwnRubric): HeldRubric => ({
  place: OWN,
  placeName: follows ? 'linked copy' : 'made here',
  kind: follows ? ('follower' as const) : ('own' as const),
  rubric,
  at: changedAt,
  locked: false,
  grades: [],
  findings: checkRubrics([rubric]),
});

/** Every rubric there is: one's own first, then those of courses, then those of files. @throws WorkTrouble */
export async function listRubrics(): Promise<RubricListing[]> {
  const [own, there] = await Promise.all([listOwnRubrics(), worked('listRubrics', null)]);
  const used = new Map<string, string[]>();
  for (const { listing, print } of there) {
    if (listing.kind !== 'course') continue;
    const graded = listing.grades.map((g) => `${g}, ${listing.placeName}`);
    used.set(print, [...(used.get(print) ?? []), ...graded]);
  }
  const behind = await followersBehind();
  return [...own.map((o) => listed(ownView(o))), ...there].map(({ listing, print }) => ({
    ...listing,
    grades: listing.kind === 'course' ? listing.grades : (used.get(print) ?? []),
    behind: listing.place === OWN && behind.has(listing.id),
  }));
}

/** Rubrics by any part of their name, place or what they grade, in any order, forgiving spelling. */
export async function findRubrics(query: string): Promise<RubricListing[]> {
  const all = query.trim() === '' ? [] : await listRubrics();
  return find(all, query, (r) => `${r.title} rubric ${r.placeName} ${r.grades.join(' ')}`).map(
    (h) => h.entry,
  );
}

/** A rubric by where it is kept and its id there; null where there is none. @throws WorkTrouble */
export async function rubricAt(place: string, id: string): Promise<ShownRubric | null> {
  if (place !== OWN) return worked('rubricThere', { place, rubric: id });
  const own = (await listOwnRubrics()).find((r) => r.rubric.id === id);
  return own ? shown(ownView(own)) : null;
}

/** The original of a follower as it is now, and whether it differs from what was taken over. */
export async function originalOf(id: string) {
  const held = await ownRubricById(id);
  if (!held?.fromPlace || !held.fromRubric) return null;
  const { fromPlace, fromRubric, follows, basis } = held;
  const now = await rubricAt(fromPlace, fromRubric);
  const changed = now !== null && basis !== null && rubricDifferences(basis, now.rubric).length > 0;
  return { place: fromPlace, id: fromRubric, follows, now, basis, changed };
}

/** Ids of followers whose original has changed since it was last taken over. */
async function followersBehind(): Promise<Set<string>> {
  const followers = (await listOwnRubrics()).filter((r) => r.follows);
  const states = await Promise.all(
    followers.map(async ({ id }) => ((await originalOf(id))?.changed ? [id] : [])),
  );
  return new Set(states.flat());
}

/** One's own rubrics whose original has changed, as the desk tells them; looks at no others. */
export async function rubricsBehind(): Promise<{ id: string; title: string; at: number }[]> {
  const behind = await followersBehind();
  return (await listOwnRubrics())
    .filter(({ rubric }) => behind.has(rubric.id))
    .map(({ rubric, changedAt }) => ({ id: rubric.id, title: rubric.title || rubric.id, at: changedAt }));
}

export const isRubricTarget = (text: string): text is RubricTarget =>
  (RUBRIC_TARGETS as readonly string[]).includes(text);

/**
 * Rubrics as one file, with the name of the first; null where one of them is no longer there.
 * @throws WorkTrouble
 */
export async function rubricFile(wanted: readonly RubricAsked[], target: RubricTarget) {
  const own = wanted.some((w) => w.place === OWN) ? await listOwnRubrics() : [];
  const rubrics = wanted.map((w) =>
    w.place === OWN ? own.find((o) => o.rubric.id === w.rubric)?.rubric : w,
  );
  const all = rubrics.filter((r) => r !== undefined);
  return all.length === wanted.length ? worked('rubricFile', { rubrics: all, target }) : null;
}
