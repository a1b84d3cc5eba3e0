import { harbourChart } from '../demo/pictures.ts';
import type { ItemSpec } from '../demo/items.ts';
import type { BankThing, CourseSpec, QuizThing } from './courseSpecs.ts';
import { filesOf } from './formats/package.ts';
import { readRubrics } from './formats/rubrics.ts';
import { heldFrom, type Markup } from './fromSpec.ts';
import { NO_HABITS } from './habits.ts';
import type { Held, HeldItem, HeldQuiz, HeldSection } from './held.ts';
import { addRubric, attach } from './heldRubrics.ts';
import type { Course, ThingState } from './types.ts';

/** The pictures that the demo's questions name. */
const PICTURES: Readonly<Record<string, () => Uint8Array>> = {
  'images/harbour chart.png': () => harbourChart(),
  'images/buoy.png': () => harbourChart(1),
};

/** A course as a system holds it at its first start. */
export function buildCourse(spec: CourseSpec, markup: Markup): Course {
  const course: Course = {
    id: spec.id,
    sections: spec.sections.map((name, at) => ({ id: `s${at + 1}`, name })),
    assignments: (spec.assignments ?? []).map((a, at) => ({ id: `a${at + 1}`, ...a })),
    things: [],
    held: { quizzes: [], banks: [], items: [], links: [] },
    rubrics: [],
    files: {},
    shared: spec.shared ?? false,
    broken: 0,
    next: 1,
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

function fill(course: Course, spec: CourseSpec, markup: Markup): void {
  const things = spec.things ?? [];
  const items: HeldItem[] = [];
  const take = (specs: readonly ItemSpec[]): string[] =>
    specs.map((s) => {
      const item = heldFrom(s, `i${course.next++}`, markup);
      items.push(item);
      return item.id;
    });
  const banks = things
    .filter((t): t is BankThing => 'bank' in t)
    .map(({ bank }) => ({ key: bank.id, title: bank.title, items: take(bank.items) }));
  const quizzes = things
    .filter((t): t is QuizThing => 'quiz' in t)
    .map(({ quiz }) => ({
      key: quiz.id,
      quiz,
      items: take(quiz.items),
    }));
  const held: { -readonly [K in keyof Held]: Held[K][number][] } = {
    quizzes: [],
    banks: [],
    items,
    links: [],
  };
  const bankIds = new Map<string, string>();
  const ids = things.map((thing) => {
    const kind = 'quiz' in thing ? 'quiz' : 'bank' in thing ? 'bank' : 'link';
    const id = `${kind[0]}${course.next++}`;
    const { section, hidden, opens, closes, review, openAttempts } = thing;
    const state: ThingState = {
      id,
      kind,
      section: section === null ? null : course.sections[section]!.id,
      hidden: hidden ?? false,
      opens: opens ?? null,
      closes: closes ?? null,
      review: review ?? null,
      openAttempts: openAttempts ?? 0,
    };
    course.things.push(state);
    if ('bank' in thing) bankIds.set(thing.bank.id, id);
    return id;
  });
  for (const [at, thing] of things.entries()) {
    const id = ids[at]!;
    if ('bank' in thing) {
      const { title, items: inside } = banks.find((b) => b.key === thing.bank.id)!;
      held.banks.push({ id, title, items: inside });
    } else if ('link' in thing) held.links.push({ id, ...thing.link });
    else {
      const { quiz, items: own } = quizzes.find((q) => q.key === thing.quiz.id)!;
      const pool = (bank: string): readonly string[] => banks.find((b) => b.key === bank)?.items ?? [];
      held.quizzes.push(quizFrom(id, quiz, own, (bank) => ({ id: bankIds.get(bank)!, items: pool(bank) })));
    }
  }
  course.held = held;
}

function quizFrom(
  id: string,
  { title, fields = {}, instructions, draws = [] }: QuizThing['quiz'],
  items: readonly string[],
  bank: (key: string) => { readonly id: string; readonly items: readonly string[] },
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
        const { id: from, items: pool } = bank(d.bank);
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
