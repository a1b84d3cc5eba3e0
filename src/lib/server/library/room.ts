import {
  looseIds,
  quizItems,
  quizPoints,
  sayEdit,
  sectionName,
  setItems,
  speak,
  UNNAMED,
  type Calling,
  type Edit,
  type Tree,
} from '@alforja/core';
import type { LayerView, PutRight } from '../../shared/edits.ts';
import { NO_ROWS, toRuns, type RoomRows, type RoomView, type Runs } from '../../shared/room.ts';
import { itemColumns, itemNames, itemPoints } from '../store/items.ts';
import type { Package } from '../store/packages.ts';
import { placesFound } from '../store/searchItems.ts';
import { callingIn } from './calling.ts';
import { layerView } from './putRight.ts';
import { quizFacts } from './quizFacts.ts';

/** A package as the reading room shows it; null where it has not been read. */
export async function roomView({
  id,
  readingId,
  tree,
  families,
  putRight,
}: Pick<Package, 'id' | 'readingId' | 'tree' | 'families' | 'putRight'>): Promise<RoomView | null> {
  if (readingId === null || tree === null) return null;
  return viewOf({ tree, families, putRight, items: await itemPoints(readingId), layer: await layerView(id) });
}

/** Words of a repair: what its edits do; what several other things become is said once. */
const MOST_SAID = 6;
function sayRepair(edits: readonly Edit[], about: string | null, called: Calling): string[] {
  const said = new Map<string, { readonly others: Set<string>; own: boolean }>();
  for (const edit of edits) {
    const words = sayEdit(edit, called);
    const says = said.get(words) ?? { others: new Set(), own: false };
    said.set(words, says);
    if (edit.node === undefined || edit.node === about) says.own = true;
    else says.others.add(edit.node);
  }
  const lines = [...said].map(([words, { others, own }]) =>
    own || others.size === 0 ? words : `${others.size} ${others.size === 1 ? 'item' : 'items'}: ${words}`,
  );
  return lines.length > MOST_SAID
    ? [...lines.slice(0, MOST_SAID), `and ${lines.length - MOST_SAID} more`]
    : lines;
}

interface Shown {
  readonly tree: Tree;
  readonly families: Package['families'];
  readonly putRight: PutRight;
  readonly items: Awaited<ReturnType<typeof itemPoints>>;
  readonly layer: LayerView;
}

function viewOf({ tree, families, putRight, items: { ids, points: worth }, layer }: Shown): RoomView {
  const called = callingIn(tree);
  const repairs = new Map(putRight.repairs.map((r) => [r.at, r.edits]));
  const edited = new Set(putRight.edited.map((n) => `${n.kind} ${n.id}`));
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
      edited: edited.has(`quiz ${quiz.id}`),
      set: { items: setItems(quiz), points: quizPoints(quiz, points) },
      draws: quiz.sections.some((s) => s.draw !== null),
      facts: quizFacts(quiz),
      settings: quiz.settings,
      parts: quiz.sections.map((s, at) => ({
        name: sectionName(quiz, at),
        title: s.title,
        items: toRuns(places(s.items.map((r) => r.item))),
        weights: s.items.flatMap((r, n) => (r.weight === 1 ? [] : [[n, r.weight] as const])),
        draw: s.draw && {
          pick: s.draw.pick,
          pool: toRuns(places(s.draw.pool)),
          pointsEach: s.draw.pointsEach,
          bank: s.draw.bank,
        },
      })),
      sections: quiz.sections.map((section, at) => ({
        title: section.title || `Section ${at + 1}`,
        points: quizPoints({ ...quiz, sections: [section] }, points),
      })),
    })),
    banks: tree.banks.map((bank) => ({
      id: bank.id,
      title: bank.title || UNNAMED.bank,
      ...runs(bank.items),
      edited: edited.has(`bank ${bank.id}`),
    })),
    families: families.map(({ id, title, varies, items }) => ({ id, title, varies, ...runs(items) })),
    loose: toRuns(loose),
    looseCount: loose.length,
    rubrics: tree.rubrics.map((r) => ({
      id: r.id,
      title: r.title || UNNAMED.rubric,
      criteria: r.criteria.length,
    })),
    links: tree.links.map(({ id, title, kind, url }) => ({ id, title, kind, url })),
    files: tree.files.map(({ path, bytes, sha256 }) => ({ path, bytes, sha256 })),
    outline: tree.outline,
    findings: tree.findings.map((found, at) => ({
      spoken: speak(found),
      item: found.where.node ? (placeOf.get(found.where.node) ?? null) : null,
      at,
      repair: repairs.has(at) ? sayRepair(repairs.get(at)!, found.where.node, called) : null,
    })),
    items: ids.length,
    edited: toRuns(ids.flatMap((id, at) => (edited.has(`item ${id}`) ? [at] : []))),
    leftOut: putRight.leftOut,
    layer,
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
