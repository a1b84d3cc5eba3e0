import { harbourChart } from '../demo/pictures.ts';
import type { ItemSpec } from '../demo/items.ts';
import type { QuizSpec } from '../demo/qti12.ts';
import type { CourseSpec, ThingSpec } from './courseSpecs.ts';
import { filesOf } from './formats/package.ts';
import { readRubrics } from './formats/rubrics.ts';
import { heldFrom, type Markup } from './fromSpec.ts';
import { NO_HABITS } from './habits.ts';
import type { HeldBank, HeldItem, HeldLink, HeldQuiz, HeldSection } from './held.ts';
import { addRubric, attach } from './heldRubrics.ts';
import type { Course, ThingState } from './types.ts';

/** The pictures that the demo's questions name. */
const PICTURES: Readonly<Record<string, () => Uint8Array>> = {
  'images/harbour chart.png': () => harbourChart(),
  'images/buoy.png': () => harbourChart(1),
};

/** A course that holds nothing yet. */
export const emptyCourse = (id: string): Course => ({
  id,
  sections: [],
  assignments: [],
  things: [],
  held: { quizzes: [], banks: [], items: [], links: [] },
  rubrics: [],
  files: {},
  shared: false,
  broken: 0,
  next: 1,
});

/** A course as a system holds it at its first start. */
export function buildCourse(spec: CourseSpec, markup: Markup): Course {
  const course: Course = {
    ...emptyCourse(spec.id),
    sections: spec.sections.map((name, at) => ({ id: `s${at + 1}`, name })),
    assignments: (spec.assignments ?? []).map((a, at) => ({ id: `a${at + 1}`, ...a })),
    shared: spec.shared ?? false,
  };
  fill(course, spec, markup);
  for (const path of new Set(course.held.items.flatMap(filesOf)))
    if (Object.hasOwn(PICTURES, path)) course.files[path] = Buffer.from(PICTURES[path]!()).toString('base64');
  for (const { rubric, grades } of spec.rubrics ?? []) {
    const [read] = readRubrics('csv', rubric);
    const graded = [...course.held.items, ...course.assignments].find((x) => x.title === grades);
    if (grades !== null && !graded) throw new Error(`${spec.id} has no item and no assignment “${grades}”`);
    attach(course, addRubric(course, read!, read!.title, {}), graded ? [graded.id] : [], NO_HABITS);
  }
  return course;
}

/** Puts the things of a course in, banks before what draws from them. */
function fill(course: Course, spec: CourseSpec, markup: Markup): void {
  const things = spec.things ?? [];
  const items: HeldItem[] = [];
  const take = (specs: readonly ItemSpec[]): string[] =>
    specs.map((s) => {
      const item = heldFrom(s, `i${course.next++}`, markup);
      items.push(item);
      return item.id;
    });
  const banks = new Map<string, HeldBank>();
  for (const thing of things)
    if ('bank' in thing) {
      const { id, title, items: inside } = thing.bank;
      banks.set(id, { id: `b${course.next++}`, title, items: take(inside) });
    }
  const quizzes: HeldQuiz[] = [];
  const links: HeldLink[] = [];
  for (const thing of things) {
    if ('bank' in thing) place(course, banks.get(thing.bank.id)!.id, 'bank', thing);
    else if ('link' in thing) {
      const link = { id: `l${course.next++}`, ...thing.link };
      links.push(link);
      place(course, link.id, 'link', thing);
    } else {
      const quiz = quizFrom(`q${course.next++}`, thing.quiz, take(thing.quiz.items), banks);
      quizzes.push(quiz);
      place(course, quiz.id, 'quiz', thing);
    }
  }
  course.held = { quizzes, banks: [...banks.values()], items, links };
}

function place(course: Course, id: string, kind: ThingState['kind'], spec: ThingSpec): void {
  const { section, hidden, opens, closes, review, openAttempts } = spec;
  course.things.push({
    id,
    kind,
    section: section === null ? null : course.sections[section]!.id,
    hidden: hidden ?? false,
    opens: opens ?? null,
    closes: closes ?? null,
    review: review ?? null,
    openAttempts: openAttempts ?? 0,
  });
}

function quizFrom(
  id: string,
  { title, fields = {}, instructions, draws = [] }: QuizSpec,
  items: readonly string[],
  banks: ReadonlyMap<string, HeldBank>,
): HeldQuiz {
  const attempts = fields['cc_maxattempts'];
  const time = fields['qmd_timelimit'];
  const fixed: HeldSection = {
    title: '',
    instructions: null,
    shuffle: false,
    items: items.map((item) => ({ item, weight: 1 })),
    draw: null,
  };
  return {
    id,
    title,
    attempts: attempts === undefined ? null : attempts === 'unlimited' ? 'unlimited' : Number(attempts),
    timeLimitMinutes: time === undefined ? null : Number(time),
    passMark: null,
    instructions: instructions ?? null,
    sections: [
      fixed,
      ...draws.map((d): HeldSection => {
        const { id: from, items: pool } = banks.get(d.bank)!;
        return {
          title: d.title,
          instructions: null,
          shuffle: true,
          items: [],
          draw: { pick: d.pick, pool, bank: from, pointsEach: d.pointsEach },
        };
      }),
    ],
  };
}
