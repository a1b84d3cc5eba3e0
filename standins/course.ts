import {
  fingerprint,
  quizItems,
  quizPoints,
  readHolding,
  setItems,
  writeHolding,
  type Holding,
  type Item,
  type Quiz,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { unzipSync } from 'fflate';
import { fileReader } from '@alforja/core';
import { cartridgeManifest, webLink, zip } from '../demo/packages.ts';
import { frozen, withHabits, type Habits } from './habits.ts';
import { addRubric, appendAll, rubricWithHabits, rubricWorth } from './heldRubrics.ts';
import type { Course, CourseOutline, LandingOrder, LandingThing, ThingKind, ThingState } from './types.ts';

/** The outline that the system shows of a course. */
export function outlineOf(course: Course): CourseOutline {
  const items = new Map(course.holding.items.map((i) => [i.id, i]));
  return {
    sections: course.sections,
    things: course.things.map((t) => {
      const quiz = course.holding.quizzes.find((q) => q.id === t.id);
      const bank = course.holding.banks.find((b) => b.id === t.id);
      const {
        attempts = null,
        timeLimitMinutes = null,
        passMark = null,
        instructions = null,
      } = quiz?.settings ?? {};
      const inBank = bank?.items.map((id) => items.get(id)?.points ?? 0) ?? [];
      return {
        ...t,
        title: titleOf(course, t),
        attempts,
        timeLimitMinutes,
        passMark,
        instructions,
        items: quiz ? setItems(quiz) : (bank?.items.length ?? 0),
        points: quiz
          ? quizPoints(quiz, items)
          : t.kind === 'rubric'
            ? rubricWorth(course, t.id)
            : inBank.reduce((a, b) => a + b, 0),
      };
    }),
  };
}

export const titleOf = (course: Course, t: Pick<ThingState, 'id' | 'kind'>): string =>
  course.holding[LISTS[t.kind]].find((x) => x.id === t.id)?.title ?? '';
const LISTS = { quiz: 'quizzes', bank: 'banks', link: 'links', rubric: 'rubrics' } as const;

/** Writes a package of a course, or of the things named. */
export function exportCourse(
  course: Course,
  things: readonly string[] | null,
  gives: 'cartridge' | 'qti2.1',
  habits: Habits,
  title: string,
): Uint8Array {
  let holding = part(course.holding, things, title);
  if (things !== null && habits.leavesBankOut) holding = frozen(holding);
  const read = (path: string): Uint8Array | null => {
    const held = course.files[path];
    return held === undefined ? null : new Uint8Array(Buffer.from(held, 'base64'));
  };
  if (gives === 'qti2.1') return writeHolding(holding, 'qti2.1', read).packages[0]!;
  return asCartridge(course, holding, writeHolding(holding, 'qti1.2', read).packages[0]!);
}

function part(holding: Holding, things: readonly string[] | null, title: string): Holding {
  if (things === null) return { ...holding, title };
  const wanted = new Set(things);
  const quizzes = holding.quizzes.filter((q) => wanted.has(q.id));
  const banks = holding.banks.filter((b) => wanted.has(b.id));
  const used = new Set([...quizzes.flatMap(quizItems), ...banks.flatMap((b) => b.items)]);
  const items = holding.items.filter((i) => used.has(i.id));
  const files = new Set(items.flatMap((i) => i.files.map((f) => f.path)));
  return {
    ...holding,
    title,
    quizzes,
    banks,
    items,
    links: holding.links.filter((l) => wanted.has(l.id)),
    files: holding.files.filter((f) => files.has(f.path)),
  };
}

/**
 * A cartridge whose quizzes are written in the whole of QTI 1.2, draws and several banks included, as is met
 * in the field.
 */
function asCartridge(course: Course, holding: Holding, plain: Uint8Array): Uint8Array {
  const entries = unzipSync(plain);
  delete entries['imsmanifest.xml'];
  const section = (id: string): string =>
    course.sections.find((s) => s.id === course.things.find((t) => t.id === id)?.section)?.name ?? '';
  const resources = Object.keys(entries).map((path, at) => {
    const quiz = holding.quizzes.find((q) => path === `quiz-${q.id}.xml`);
    const bank = path.startsWith('bank-') || path.startsWith('items-');
    const type = quiz
      ? 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment'
      : bank
        ? 'imsqti_xmlv1p2/imscc_xmlv1p3/question-bank'
        : 'webcontent';
    return {
      id: `R${at + 1}`,
      type,
      href: path,
      ...(quiz ? { title: quiz.title, folder: section(quiz.id) } : {}),
    };
  });
  const links = holding.links.map((l) => ({
    id: l.id,
    type: 'imswl_xmlv1p3',
    href: `links/${l.id}.xml`,
    title: l.title,
    folder: section(l.id),
  }));
  return zip({
    'imsmanifest.xml': cartridgeManifest(3, holding.title, [...resources, ...links]),
    ...entries,
    ...Object.fromEntries(holding.links.map((l) => [`links/${l.id}.xml`, webLink(3, l.title, l.url)])),
  });
}

interface Arriving {
  readonly holding: Holding;
  readonly files: Record<string, string>;
}

/** Reads a package that was sent in. */
export async function arriving(name: string, bytes: Uint8Array): Promise<Arriving> {
  const holding = await readHolding(name, bytes, nodePlatform);
  const read = await fileReader(name, bytes, nodePlatform);
  const files: Record<string, string> = {};
  for (const f of holding.files) {
    const content = read(f.path);
    if (content) files[f.path] = Buffer.from(content).toString('base64');
  }
  return { holding, files };
}

/** Fields that people read: never taken for an identifier. */
const SAID = new Set(['title', 'text', 'value', 'label', 'instructions', 'url', 'xml', 'category']);

const PREFIX: Readonly<Record<ThingKind, string>> = { quiz: 'q', bank: 'b', link: 'l', rubric: 'r' };

/**
 * Puts the things of a package into a course.
 * @param stopAfter how many things are made before it breaks off
 * @returns the ids of what was made
 */
export function importInto(
  course: Course,
  given: Arriving,
  order: LandingOrder,
  habits: Habits,
  by: string,
  stopAfter: number,
): string[] {
  const holding = withHabits(given.holding, habits);
  const created: string[] = [];
  const ids = new Map<string, string>();
  const names = new Set<string>();
  for (const item of holding.items) ids.set(item.id, `i${course.next++}`);
  const files = takeFiles(course, holding, given.files, names);
  const left: Record<ThingKind, LandingThing[]> = { quiz: [], bank: [], link: [], rubric: [] };
  for (const t of order.things) left[t.kind].push(t);
  const orderFor = (kind: ThingKind, title: string): LandingThing | null => {
    const at = left[kind].findIndex((t) => t.name === title);
    return left[kind].splice(Math.max(0, at), 1)[0] ?? null;
  };
  const banks = holding.banks.map((bank) => ({ bank, order: orderFor('bank', bank.title) }));
  /** Items of a bank that is there already are those of that bank. */
  for (const { bank, order: o } of banks) {
    if (!o?.use || habits.doublesOnRepeat) continue;
    const there = course.holding.banks.find((b) => b.id === o.use);
    const prints = new Map(
      course.holding.items.filter((i) => there?.items.includes(i.id)).map((i) => [fingerprint(i), i.id]),
    );
    for (const id of bank.items) {
      const item = holding.items.find((i) => i.id === id)!;
      const known = prints.get(fingerprint(item));
      if (known) ids.set(id, known);
    }
    ids.set(bank.id, there?.id ?? bank.id);
  }
  const make = (kind: ThingKind, from: string, o: LandingThing | null): ThingState | null => {
    if (created.length >= stopAfter) return null;
    const id = `${PREFIX[kind]}${course.next++}`;
    ids.set(from, id);
    created.push(id);
    const opens = o?.opens ?? null;
    const now = '2026-11-25T08:00:00Z';
    const state: ThingState = {
      id,
      kind,
      section: sectionFor(course, o, habits),
      hidden: o?.hidden ?? false,
      opens: habits.equalDates && kind === 'quiz' ? (opens ?? now) : opens,
      closes: habits.equalDates && kind === 'quiz' ? (opens ?? now) : (o?.closes ?? null),
      review: o?.review ?? null,
      openAttempts: 0,
    };
    course.things.push(state);
    return state;
  };
  const nameOf = (title: string): string =>
    habits.nameless ? '' : habits.namesAfterExporter ? `${by}, import` : title;
  const rename = <T>(value: T): T =>
    JSON.parse(
      JSON.stringify(value, (key, v: unknown) =>
        typeof v === 'string' && !SAID.has(key) ? (ids.get(v) ?? files.get(v) ?? v) : v,
      ),
    ) as T;
  const added = {
    quizzes: [] as Quiz[],
    banks: [] as Holding['banks'][number][],
    links: [] as Holding['links'][number][],
  };
  for (const { bank, order: o } of banks) {
    if (o?.use && !habits.doublesOnRepeat) continue;
    if (make('bank', bank.id, o)) added.banks.push({ ...bank, title: nameOf(o?.name ?? bank.title) });
  }
  for (const quiz of holding.quizzes) {
    const o = orderFor('quiz', quiz.title);
    if (o?.use && !habits.doublesOnRepeat) continue;
    if (make('quiz', quiz.id, o)) added.quizzes.push({ ...quiz, title: nameOf(o?.name ?? quiz.title) });
  }
  for (const link of holding.links) {
    const o = orderFor('link', link.title);
    if (o?.use && !habits.doublesOnRepeat) continue;
    if (make('link', link.id, o)) added.links.push({ ...link, title: nameOf(o?.name ?? link.title) });
  }
  if (holding.rubrics.length > 0 && habits.appendsRubrics && created.length < stopAfter)
    created.push(...appendAll(course));
  for (const rubric of holding.rubrics) {
    const o = orderFor('rubric', rubric.title);
    if ((o?.use && !habits.doublesOnRepeat) || created.length >= stopAfter) continue;
    created.push(
      addRubric(course, rubricWithHabits(rubric, habits), nameOf(o?.name ?? rubric.title), {
        copied: true,
        locked: habits.locksRubrics,
      }),
    );
  }
  const used = new Set([...added.quizzes.flatMap(quizItems), ...added.banks.flatMap((b) => b.items)]);
  const known = new Set(course.holding.items.map((i) => i.id));
  const items = rename(holding.items.filter((i) => used.has(i.id)).map(bare)).filter((i) => !known.has(i.id));
  course.holding = {
    ...course.holding,
    quizzes: [...course.holding.quizzes, ...rename(added.quizzes)],
    banks: [...course.holding.banks, ...rename(added.banks)],
    links: [...course.holding.links, ...rename(added.links)],
    items: [...course.holding.items, ...items],
    files: [
      ...course.holding.files,
      ...holding.files
        .filter((f) => names.has(files.get(f.path) ?? f.path))
        .map((f) => ({ ...f, path: files.get(f.path) ?? f.path })),
    ],
  };
  return created;
}

/** Where an item stood in the package it came from is nothing a system keeps. */
const bare = (item: Item): Item => ({ ...item, origin: null });

function sectionFor(course: Course, order: LandingThing | null, habits: Habits): string | null {
  if (habits.landsByPosition && order && order.section !== null)
    return (course.sections[order.position ?? 0] ?? course.sections.at(-1))?.id ?? null;
  return order?.section ?? null;
}

/** Files come in under their own names; another file of the name makes way for a number. */
function takeFiles(
  course: Course,
  holding: Holding,
  content: Record<string, string>,
  names: Set<string>,
): Map<string, string> {
  const renamed = new Map<string, string>();
  for (const file of holding.files) {
    const bytes = content[file.path];
    if (bytes === undefined) continue;
    let path = file.path;
    for (let n = 2; course.files[path] !== undefined && course.files[path] !== bytes; n++)
      path = file.path.replace(/(\.\w+)?$/u, `-${n}$1`);
    if (path !== file.path) renamed.set(file.path, path);
    if (course.files[path] === undefined) names.add(path);
    course.files[path] = bytes;
  }
  return renamed;
}

/** Takes a thing out of a course, and the items and files that nothing else uses. */
export function removeThing(course: Course, id: string): void {
  const { holding } = course;
  course.things = course.things.filter((t) => t.id !== id);
  const quizzes = holding.quizzes.filter((q) => q.id !== id);
  const banks = holding.banks.filter((b) => b.id !== id);
  const used = new Set([...quizzes.flatMap(quizItems), ...banks.flatMap((b) => b.items)]);
  const items = holding.items.filter((i) => used.has(i.id));
  const still = new Set(items.map((i) => i.id));
  const kept = new Set(items.flatMap((i) => i.files.map((f) => f.path)));
  course.files = Object.fromEntries(Object.entries(course.files).filter(([path]) => kept.has(path)));
  course.holding = {
    ...holding,
    quizzes,
    banks,
    links: holding.links.filter((l) => l.id !== id),
    rubrics: holding.rubrics
      .filter((r) => r.id !== id)
      .map((r) => ({
        ...r,
        attachedTo: r.attachedTo.filter(
          (a) => a !== id && (still.has(a) || course.things.some((t) => t.id === a)),
        ),
      })),
    items,
    files: holding.files.filter((f) => kept.has(f.path)),
  };
}
