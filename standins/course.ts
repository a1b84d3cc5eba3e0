import { readPackage, writeCartridge, writeQti21, filesOf, type Arrived } from './formats/package.ts';
import { readRubrics, rubricWorth, type HeldRubric } from './formats/rubrics.ts';
import { frozen, type Habits } from './habits.ts';
import { itemsOf, plain, setOf, worthOf, type Held } from './held.ts';
import type { Course, ThingKind, ThingState } from './types.ts';

/** A thing as the outline shows it. */
export interface OutlinedThing extends ThingState {
  readonly title: string;
  readonly items: number;
  readonly points: number;
  readonly attempts: number | 'unlimited' | null;
  readonly timeLimitMinutes: number | null;
  readonly passMark: number | null;
  readonly instructions: string | null;
}

/** The outline that the system shows of a course. */
export function outlineOf(course: Course): { sections: Course['sections']; things: OutlinedThing[] } {
  const points = new Map(course.held.items.map((i) => [i.id, i.points]));
  const sum = (ids: readonly string[]): number => ids.reduce((all, id) => all + (points.get(id) ?? 0), 0);
  return {
    sections: course.sections,
    things: course.things.map((t) => {
      const quiz = course.held.quizzes.find((q) => q.id === t.id);
      const bank = course.held.banks.find((b) => b.id === t.id);
      const rubric = course.rubrics.find((r) => r.id === t.id);
      const { attempts = null, timeLimitMinutes = null, passMark = null } = quiz ?? {};
      const said = [quiz?.instructions, ...(quiz?.sections.map((s) => s.instructions) ?? [])].filter(
        (text) => text !== null && text !== undefined,
      );
      return {
        ...t,
        title: titleOf(course, t),
        attempts,
        timeLimitMinutes,
        passMark,
        instructions: said.length === 0 ? null : said.map(plain).join('\n'),
        items: quiz ? setOf(quiz) : (bank?.items.length ?? 0),
        points: quiz ? worthOf(quiz, points) : rubric ? rubricWorth(rubric) : sum(bank?.items ?? []),
      };
    }),
  };
}

const LISTS = { quiz: 'quizzes', bank: 'banks', link: 'links' } as const;
export const titleOf = (course: Course, { id, kind }: { id: string; kind: ThingKind }): string => {
  const list = kind === 'rubric' ? course.rubrics : course.held[LISTS[kind]];
  return list.find((x) => x.id === id)?.title ?? '';
};

/** Writes a package of a course, or of the things named. */
export function exportCourse(
  course: Course,
  things: readonly string[] | null,
  gives: 'cartridge' | 'qti2.1',
  habits: Habits,
  title: string,
): Uint8Array {
  const some = things === null ? course.held : part(course.held, things);
  const held = things !== null && habits.leavesBankOut ? withoutUnused(frozen(some)) : some;
  const sectionOf = (id: string): string => {
    const section = course.things.find((t) => t.id === id)?.section;
    return course.sections.find((s) => s.id === section)?.name ?? '';
  };
  const sent = { held, title, files: course.files, sectionOf };
  return gives === 'qti2.1' ? writeQti21(sent) : writeCartridge(sent);
}

function part(held: Held, things: readonly string[]): Held {
  const wanted = <T extends { readonly id: string }>(list: readonly T[]): T[] =>
    list.filter((x) => things.includes(x.id));
  return withoutUnused({
    quizzes: wanted(held.quizzes),
    banks: wanted(held.banks),
    links: wanted(held.links),
    items: held.items,
  });
}

/** Without the items that stand in no quiz and no bank. */
function withoutUnused(held: Held): Held {
  const used = new Set([...held.quizzes.flatMap(itemsOf), ...held.banks.flatMap((b) => b.items)]);
  return { ...held, items: held.items.filter((i) => used.has(i.id)) };
}

/** What one import brings: a package, or a file of rubrics beside it. */
export interface Arriving extends Arrived {
  readonly rubrics: readonly HeldRubric[];
}

/** Reads what was sent in. @throws Error with words for the one who sent it */
export function arriving(bytes: Uint8Array): Arriving {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return { ...readPackage(bytes), rubrics: [] };
  const text = new TextDecoder().decode(bytes);
  const held: Held = { quizzes: [], banks: [], items: [], links: [] };
  return { held, files: {}, rubrics: readRubrics(/^\s*[{[]/u.test(text) ? 'case1.0' : 'csv', text) };
}

/** Takes a thing out of a course, and the items and files that nothing else uses. */
export function removeThing(course: Course, id: string): void {
  course.things = course.things.filter((t) => t.id !== id);
  const without = <T extends { readonly id: string }>(list: readonly T[]): T[] =>
    list.filter((x) => x.id !== id);
  const { quizzes, banks, links, items } = course.held;
  course.held = withoutUnused({
    quizzes: without(quizzes),
    banks: without(banks),
    links: without(links),
    items,
  });
  const still = new Set([...course.held.items, ...course.things, ...course.assignments].map((x) => x.id));
  const kept = new Set(course.held.items.flatMap(filesOf));
  course.files = Object.fromEntries(Object.entries(course.files).filter(([path]) => kept.has(path)));
  course.rubrics = without(course.rubrics).map((r) => ({
    ...r,
    attachedTo: r.attachedTo.filter((a) => still.has(a)),
  }));
}
