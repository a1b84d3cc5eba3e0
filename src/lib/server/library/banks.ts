import { BANK_ID, Lately, type BankAt, type ItemAt } from '@alforja/core';
import { courseName } from '../../shared/courses.ts';
import type { BankListing } from '../../shared/making.ts';
import { listContainers } from '../store/containers.ts';
import { allCourses } from '../store/courses.ts';
import { listMade } from '../store/made.ts';
import { ownPlace } from '../store/places.ts';
import { takersOf } from '../store/takenItems.ts';
import type { Counted } from '../work/trees.ts';
import { worked } from './worked.ts';

/** Every bank there is: of packages, of courses as last looked into, and of one's own. */

/** What was counted, by reading: what was read does not change. */
const lately = new Lately<readonly Counted[]>(500);

async function countedIn(packageId: string, readingId: string): Promise<readonly Counted[]> {
  const had = lately.get(readingId);
  if (had) return had;
  const all = await worked('bankCounts', { packageId });
  lately.set(readingId, all);
  return all;
}

/** @param whole whether everything a place holds is listed beside its banks, as something to take items from */
export async function listBanks(whole: boolean): Promise<BankListing[]> {
  const [all, courses, takers] = await Promise.all([listContainers(), allCourses(), takersOf()]);
  const names = new Map(courses.map((c) => [c.id, courseName(c)]));
  const packages = new Map(all.map((c) => [c.packageId, c]));
  const listings = await Promise.all(
    [...packages.values()].map(async (held): Promise<BankListing[]> => {
      const { madeId, courseId, packageId } = held;
      const place = madeId ? ownPlace(madeId) : (courseId ?? packageId);
      const titles = new Map(
        all.filter((c) => c.packageId === packageId && c.kind === 'bank').map((c) => [c.nodeId, c.title]),
      );
      // A quiz that is made here is no place to take items from.
      if (madeId && titles.size === 0) return [];
      const usedHere = takers.filter((t) => t.place === place && t.kind === 'quiz').map((t) => t.title);
      return (await countedIn(packageId, held.readingId)).flatMap((c): BankListing[] => {
        if (c.bank === null ? !whole || madeId !== null || titles.size === 1 : !titles.has(c.bank)) return [];
        return [
          {
            ...c,
            place,
            placeName: madeId
              ? 'made here'
              : courseId
                ? (names.get(courseId) ?? held.packageName)
                : held.packageName,
            kind: madeId ? 'own' : courseId ? 'course' : 'package',
            title: c.bank === null ? 'All questions' : titles.get(c.bank)!,
            usedIn: [...new Set([...c.usedIn, ...usedHere])],
            href: madeId
              ? `/banks/${madeId}`
              : `/packages/${packageId}${c.bank === null ? '' : `?in=${encodeURIComponent(`bank:${c.bank}`)}`}`,
            own: madeId,
            at: held.broughtAt,
          },
        ];
      });
    }),
  );
  const there = new Set(listings.flat().map((l) => l.own));
  const empty = (await listMade('bank'))
    .filter((m) => !there.has(m.id))
    .map((m): BankListing => ({
      place: ownPlace(m.id),
      placeName: 'made here',
      kind: 'own',
      bank: BANK_ID,
      title: m.title,
      items: 0,
      points: 0,
      kinds: [],
      categories: [],
      usedIn: [],
      href: `/banks/${m.id}`,
      own: m.id,
      at: m.changedAt,
    }));
  const rank = { own: 0, package: 1, course: 2 } as const;
  return [...empty, ...listings.flat()].sort((a, b) => rank[a.kind] - rank[b.kind] || b.at - a.at);
}

/** Every item of some banks, each once, in order. */
export async function itemsOfBanks(banks: readonly BankAt[]): Promise<ItemAt[]> {
  const out = new Map<string, ItemAt>();
  for (const { place, bank } of banks) {
    const ids = await worked('bankItems', { place, bank });
    for (const item of ids) out.set(`${place} ${item}`, { place, item });
  }
  return [...out.values()];
}
