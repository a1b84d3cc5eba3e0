import { looseIds, quizItems, quizPoints, setItems, speak, UNNAMED, type Tree } from '@alforja/core';
import { NO_ROWS, toRuns, type RoomRows, type RoomView, type Runs } from '../../shared/room.ts';
import { itemColumns, itemNames, itemPoints } from '../store/items.ts';
import type { Package } from '../store/packages.ts';
import { placesFound } from '../store/searchItems.ts';
import { quizFacts } from './quizFacts.ts';

/** A package as the reading room shows it; null where it has not been read. */
export async function roomView({
  readingId,
  tree,
}: Pick<Package, 'readingId' | 'tree'>): Promise<RoomView | null> {
  if (readingId === null || tree === null) return null;
  return viewOf(tree, await itemPoints(readingId));
}

function viewOf(tree: Tree, { ids, points: worth }: Awaited<ReturnType<typeof itemPoints>>): RoomView {
  const placeOf = new Map(ids.map((id, at) => [id, at]));
  const places = (ids: readonly string[]): number[] => ids.flatMap((id) => placeOf.get(id) ?? []);
  const runs = (ids: readonly string[]): { items: Runs; count: number } => {
    const found = places(ids);
    return { items: toRuns(found), count: found.length };
  };
  const points = new Map(ids.map((id, at) => [id, { points: worth[at]! }]));
  const loose = places(looseIds(tree, [...ids]));
  return {
    title: tree.title,
    format: tree.format,
    quizzes: tree.quizzes.map((quiz) => ({
      id: quiz.id,
      title: quiz.title || UNNAMED.quiz,
      ...runs([...new Set(quizItems(quiz))]),
      set: { items: setItems(quiz), points: quizPoints(quiz, points) },
      draws: quiz.sections.some((s) => s.draw !== null),
      facts: quizFacts(quiz),
      sections: quiz.sections.map((section, at) => ({
        title: section.title || `Section ${at + 1}`,
        points: quizPoints({ ...quiz, sections: [section] }, points),
      })),
    })),
    banks: tree.banks.map((bank) => ({
      id: bank.id,
      title: bank.title || UNNAMED.bank,
      ...runs(bank.items),
    })),
    loose: toRuns(loose),
    looseCount: loose.length,
    rubrics: tree.rubrics.map((r) => ({
      id: r.id,
      title: r.title || UNNAMED.rubric,
      criteria: r.criteria.length,
    })),
    links: tree.links.map(({ title, kind, url }) => ({ title, kind, url })),
    files: tree.files.map(({ path, bytes, sha256 }) => ({ path, bytes, sha256 })),
    outline: tree.outline,
    findings: tree.findings.map((found) => ({
      spoken: speak(found),
      item: found.where.node ? (placeOf.get(found.where.node) ?? null) : null,
    })),
    items: ids.length,
  };
}

/** Values once each, and for every row which it is; -1 is none. */
function palette(values: readonly (string | null)[]): { once: string[]; which: number[] } {
  const known = new Map<string, number>();
  const which = values.map((value) => {
    if (value === null || value === '') return -1;
    if (!known.has(value)) known.set(value, known.size);
    return known.get(value)!;
  });
  return { once: [...known.keys()], which };
}

/** What the reading room's list knows of every item of a package, but for the names. */
export async function roomRows({ readingId }: Pick<Package, 'readingId'>): Promise<RoomRows> {
  if (readingId === null) return NO_ROWS;
  const { points, ...said } = await itemColumns(readingId);
  const [kinds, categories] = [palette(said.kinds), palette(said.categories)];
  return {
    kinds: kinds.once,
    kind: kinds.which,
    categories: categories.once,
    category: categories.which,
    points,
  };
}

/** What the items at some places are called, as pairs of place and name. */
export async function roomNames(
  { readingId }: Pick<Package, 'readingId'>,
  places: readonly number[],
): Promise<[number, string][]> {
  return readingId === null ? [] : itemNames(readingId, places);
}

/** Places of the items of a package that words find: in all they say, or in what is right. */
export async function roomFound(
  { readingId }: Pick<Package, 'readingId'>,
  { query, key }: { readonly query: string; readonly key: string },
): Promise<Runs> {
  if (readingId === null) return [];
  return toRuns([...(await placesFound(readingId, query, key))].sort((a, b) => a - b));
}
