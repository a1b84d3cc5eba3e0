import {
  eachOnce,
  instructionsOf,
  quizItems,
  quizPoints,
  setItems,
  UNNAMED,
  type Edit,
  type Quiz,
} from '@alforja/core';
import type { LinkLine } from '../../shared/links.ts';
import type { QuizHead } from '../../shared/quizzes.ts';
import { itemColumns } from '../store/items.ts';
import { packageById } from '../store/packages.ts';
import { placeNow } from '../store/places.ts';
import { callingIn } from './calling.ts';
import { readingItems } from './readingItems.ts';

/** What pages ask of what was read of a package: a tree may be large, and is gone through here. */

export interface PackageAsked {
  readonly packageId: string;
}

/** The links of a package; null where there is no such package. */
export async function linksTask({ packageId }: PackageAsked): Promise<LinkLine[] | null> {
  const held = await packageById(packageId);
  return held?.tree?.links.map(({ title, kind, url }) => ({ title, kind, url })) ?? null;
}

export interface NamesAsked extends PackageAsked {
  readonly ids: readonly string[];
}

/** What things of a package are called that are no items, in the order of their ids. */
export async function namesTask({ packageId, ids }: NamesAsked): Promise<string[]> {
  return ids.map(callingIn((await packageById(packageId))?.tree ?? null));
}

export interface RepairsAsked extends PackageAsked {
  readonly readingId: string;
  /** Places of the findings to be repaired, from 0. */
  readonly at: readonly number[];
}

/** The edits that repair some findings of a reading, each once; null where another reading is shown by now. */
export async function repairsTask({ packageId, readingId, at }: RepairsAsked): Promise<Edit[] | null> {
  const held = await packageById(packageId);
  if (held?.readingId !== readingId) return null;
  const wanted = new Set(at);
  return eachOnce(held.putRight.repairs.filter((r) => wanted.has(r.at)).flatMap((r) => r.edits));
}

export interface HeadAsked extends PackageAsked {
  readonly quizId: string;
}

/** What all pages of a quiz show of it; null where there is none. */
export async function quizHeadTask({ packageId, quizId }: HeadAsked): Promise<Omit<QuizHead, 'made'> | null> {
  const held = await packageById(packageId);
  const quiz = held?.tree?.quizzes.find((q) => q.id === quizId);
  if (!held || held.readingId === null || !quiz) return null;
  const { worth } = await readingItems(held.readingId);
  return {
    packageId,
    packageName: held.name,
    id: quiz.id,
    title: quiz.title || UNNAMED.quiz,
    items: setItems(quiz),
    points: quizPoints(quiz, worth),
    draws: quiz.sections.filter((s) => s.draw !== null).length,
    instructions: instructionsOf(quiz),
    minutes: quiz.settings.timeLimitMinutes,
    passMark: quiz.settings.passMark,
    attempts: quiz.settings.attempts,
  };
}

/** What stands in a bank, or in all of a package. */
export interface Counted {
  /** Null for all of it. */
  readonly bank: string | null;
  readonly items: number;
  readonly points: number;
  readonly kinds: readonly string[];
  readonly categories: readonly string[];
  readonly usedIn: readonly string[];
}

/** Counts what stands in a package, and in each of its banks. */
export async function countsTask({ packageId }: PackageAsked): Promise<Counted[]> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null) return [];
  const { tree, readingId } = held;
  const { ids, points, places: at } = await readingItems(readingId);
  const { kinds, categories } = await itemColumns(readingId);
  const drawn = new Map(tree.quizzes.map((q): [Quiz, Set<string>] => [q, new Set(quizItems(q))]));
  const count = (bank: string | null, items: readonly string[]): Counted => {
    const places = [...at.found(items)];
    return {
      bank,
      items: places.length,
      points: places.reduce((sum, n) => sum + points[n]!, 0),
      kinds: [...new Set(places.map((n) => kinds[n]!))],
      categories: [...new Set(places.flatMap((n) => categories[n] ?? []))],
      usedIn: tree.quizzes
        .filter(
          (q) => q.sections.some((s) => s.draw?.bank === bank) || items.some((id) => drawn.get(q)!.has(id)),
        )
        .map((q) => q.title || q.id),
    };
  };
  return [count(null, ids), ...tree.banks.map((b) => count(b.id, b.items))];
}

/** Ids of the items of a bank of a place, in order; of all its items where no bank is named. */
export async function bankItemsTask({
  place,
  bank,
}: {
  readonly place: string;
  readonly bank: string | null;
}): Promise<readonly string[]> {
  const now = await placeNow(place);
  if (!now?.held.readingId) return [];
  return bank === null
    ? (await readingItems(now.held.readingId)).ids
    : (now.held.tree?.banks.find((b) => b.id === bank)?.items ?? []);
}
