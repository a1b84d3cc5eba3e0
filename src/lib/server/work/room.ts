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
  type SpokenFinding,
  type Tree,
} from '@alforja/core';
import { shortened, toRuns, type RoomView, type Runs } from '../../shared/room.ts';
import { packageById, type Package } from '../store/packages.ts';
import { callingIn } from './calling.ts';
import { quizFacts } from './quizFacts.ts';
import { readingItems, type ReadingItems } from './readingItems.ts';
import type { PackageAsked } from './trees.ts';

/** What was read of a package, as its page shows it; what its edits come to is known elsewhere. */
export type SeenRoom = Omit<RoomView, 'layer'>;
export interface SeenPackage {
  readonly reading: string;
  /** Null where it holds rubrics, or a table of them, and nothing else. */
  readonly room: SeenRoom | null;
  readonly rubrics: {
    readonly rubrics: readonly { readonly id: string; readonly title: string; readonly criteria: number }[];
    readonly tabular: boolean;
    /** The first of what was found, and how much that is. */
    readonly spoken: readonly SpokenFinding[];
    readonly found: number;
  } | null;
}

type Read = Pick<Package, 'families' | 'putRight'> & { readonly tree: Tree; readonly readingId: string };

/** A package as its page shows it; null where it has not been read. */
export async function roomTask({ packageId }: PackageAsked): Promise<SeenPackage | null> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null) return null;
  const { tree, readingId: reading } = held;
  const tabular = isTable(tree.format.container);
  if ((tree.rubrics.length > 0 || tabular) && (held.summary?.items ?? 0) === 0) {
    const rubrics = tree.rubrics.map(({ id, title, criteria }) => ({ id, title, criteria: criteria.length }));
    const spoken = tree.findings.slice(0, MOST_SPOKEN).map(speak);
    return { reading, room: null, rubrics: { rubrics, tabular, spoken, found: tree.findings.length } };
  }
  return { reading, room: shortened(await wholeView({ ...held, tree, readingId: reading })), rubrics: null };
}

/** Findings of a file of rubrics that its page shows. */
const MOST_SPOKEN = 200;

/** All that the reading room shows of a package, as JSON; null where it has not been read. */
export async function roomTextTask({ packageId }: PackageAsked): Promise<string | null> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null) return null;
  return JSON.stringify(await wholeView({ ...held, tree: held.tree, readingId: held.readingId }));
}

const wholeView = async (held: Read): Promise<SeenRoom> => viewOf(held, await readingItems(held.readingId));

const isTable = (container: string): boolean => container === 'csv' || container === 'xlsx';

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

function viewOf({ tree, families, putRight }: Read, { ids, places, worth }: ReadingItems): SeenRoom {
  const called = callingIn(tree);
  const repairs = new Map(putRight.repairs.map((r) => [r.at, r.edits]));
  const edited = new Set(putRight.edited.map((n) => `${n.kind} ${n.id}`));
  const runs = (ids: readonly string[]): { items: Runs; count: number } => {
    const found = places.found(ids);
    return { items: toRuns(found), count: found.length };
  };
  const loose = places.found(looseIds(tree, ids, places));
  return {
    title: tree.title,
    format: tree.format,
    quizzes: tree.quizzes.map((quiz) => ({
      id: quiz.id,
      title: quiz.title || UNNAMED.quiz,
      ...runs([...new Set(quizItems(quiz))]),
      edited: edited.has(`quiz ${quiz.id}`),
      set: { items: setItems(quiz), points: quizPoints(quiz, worth) },
      draws: quiz.sections.some((s) => s.draw !== null),
      facts: quizFacts(quiz),
      settings: quiz.settings,
      parts: quiz.sections.map((s, at) => ({
        name: sectionName(quiz, at),
        title: s.title,
        items: toRuns(places.found(s.items.map((r) => r.item))),
        weights: s.items.flatMap((r, n) => (r.weight === 1 ? [] : [[n, r.weight] as const])),
        draw: s.draw && {
          pick: s.draw.pick,
          pool: toRuns(places.found(s.draw.pool)),
          pointsEach: s.draw.pointsEach,
          bank: s.draw.bank,
        },
      })),
      sections: quiz.sections.map((section, at) => ({
        title: section.title || `Section ${at + 1}`,
        points: quizPoints({ ...quiz, sections: [section] }, worth),
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
      item: found.where.node ? (places.at(found.where.node) ?? null) : null,
      at,
      repair: repairs.has(at) ? sayRepair(repairs.get(at)!, found.where.node, called) : null,
    })),
    items: ids.length,
    edited: toRuns(ids.flatMap((id, at) => (edited.has(`item ${id}`) ? [at] : []))),
    leftOut: putRight.leftOut,
    short: null,
  };
}
