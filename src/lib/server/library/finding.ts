import { find, opening } from '@alforja/core';
import type { TransferListing } from '../../shared/transfers.ts';
import { many } from '../../shared/many.ts';
import type { SearchGroup, SearchGroupName, SearchHit } from '../../shared/finding.ts';
import { listContainers, type ContainerHit } from '../store/containers.ts';
import { searchItems, type ItemHit } from '../store/searchItems.ts';
import { listRules } from '../store/readingRules.ts';
import { listKnownLayouts } from '../store/knownLayouts.ts';
import { listTransfers } from '../store/transfers.ts';
import { findCourses } from './courses.ts';
import { findRubrics } from './heldRubrics.ts';
import { broughtPackages } from './packages.ts';

/** The one search: everything there is by any part of what it is called or says, each thing once. */

const MOST_TRANSFERS = 200;
/** Characters of a key beside what it is the key of. */
const LONGEST_KEY = 32;

type Finder = (query: string, limit: number) => Promise<SearchHit[]>;
const plain = (name: string, href: string, note: string): SearchHit => ({ name, href, note, kind: null });

const courses: Finder = async (query) =>
  (await findCourses(query)).map((c) =>
    plain(
      c.title,
      `/courses/${encodeURIComponent(c.id)}`,
      `${c.code}, section ${c.section}, ${c.term}, ${c.system}`,
    ),
  );

/** Quizzes and banks; those of one name and size in several places once, with how many. */
const containers: Finder = async (query) => {
  const found = find(await listContainers(), query, (c) => `${c.title} ${c.kind} ${c.packageName}`);
  const same = new Map<string, ContainerHit[]>();
  for (const { entry } of found) {
    const key = `${entry.kind} ${entry.items} ${entry.title}`;
    same.set(key, [...(same.get(key) ?? []), entry]);
  }
  return [...same.values()].map(([first, ...rest]) => {
    const { kind, title, items, packageId, madeId, nodeId } = first!;
    const packageName = madeId ? 'made here' : first!.packageName;
    const where = rest.length === 0 ? packageName : `in ${rest.length + 1} places, ${packageName} first`;
    const at = new URLSearchParams({ in: `${kind}:${nodeId}` }).toString();
    const own = kind === 'quiz' ? 'quizzes' : 'banks';
    const href = madeId ? `/${own}/${madeId}` : `/packages/${packageId}?${at}`;
    return plain(title, href, `${kind}, ${many(items, 'item')} · ${where}`);
  });
};

function itemNote({ key, packages, packageName }: ItemHit): string {
  const where = packages === 1 ? packageName : `in ${packages} packages`;
  return [key === '' ? '' : `key: ${opening(key, LONGEST_KEY)}`, where].filter((t) => t !== '').join(' · ');
}

const items: Finder = async (query, limit) =>
  (await searchItems(query, limit + 1)).map((hit) => ({
    name: hit.name,
    href: `/packages/${hit.packageId}?item=${hit.seq}`,
    note: itemNote(hit),
    kind: hit.kind,
  }));

const rubrics: Finder = async (query) =>
  (await findRubrics(query)).map((r) =>
    plain(r.title, `/rubrics/${encodeURIComponent(r.place)}/${encodeURIComponent(r.id)}`, r.placeName),
  );

const packages: Finder = async (query) =>
  find(await broughtPackages(), query, (p) => `${p.name} ${p.summary?.title ?? ''}`).map(({ entry: p }) =>
    plain(
      p.name,
      `/packages/${p.id}`,
      p.summary ? `${p.summary.title} · ${many(p.summary.items, 'item')}` : 'not read',
    ),
  );

const transferHits = (listed: readonly TransferListing[]): SearchHit[] =>
  listed.map((t) => plain(t.title, `/transfers/${t.id}`, t.sentAt === null ? 'draft' : t.packageName));

const receiptHits = (listed: readonly TransferListing[]): SearchHit[] =>
  listed
    .filter((t) => t.comparedAt !== null)
    .map((t) =>
      plain(t.title, `/transfers/${t.id}/receipt`, t.open === 0 ? 'nothing open' : `${t.open} open`),
    );

const layouts: Finder = async (query) => {
  const rules = (await listRules()).map((r) => plain(r.name, '/rules', `${r.label} means ${r.means}`));
  const known = (await listKnownLayouts()).map((l) => plain(l.name, '/rules', l.says));
  return find([...rules, ...known], query, (h) => `${h.name} ${h.note}`).map((h) => h.entry);
};

/** The finders for one query: what two of them look through is fetched once. */
function findersFor(query: string): Readonly<Record<SearchGroupName, Finder>> {
  const listed = listTransfers(MOST_TRANSFERS, { query });
  return {
    courses,
    containers,
    items,
    rubrics,
    packages,
    transfers: async () => transferHits(await listed),
    receipts: async () => receiptHits(await listed),
    layouts,
  };
}

/** Everything that a query finds, in groups; groups with nothing are left out. @param limit hits a group */
export async function findEverything(query: string, limit: number): Promise<SearchGroup[]> {
  if (query.trim() === '') return [];
  const groups = await Promise.all(
    Object.entries(findersFor(query)).map(async ([of, finder]): Promise<SearchGroup> => {
      const hits = await finder(query, limit);
      return { of: of as SearchGroupName, hits: hits.slice(0, limit), more: hits.length > limit };
    }),
  );
  return groups.filter((g) => g.hits.length > 0);
}
