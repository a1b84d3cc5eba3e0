import type { Maker } from '../make.ts';
import type { CourseSpec, QuizSpec, SectionSpec } from '../spec.ts';
import { lookalike, swap } from './change.ts';

/** A change of where items stand or how the quiz is set. */
export interface QuizChange {
  readonly name: string;
  readonly facets: readonly string[];
  readonly also?: readonly string[];
  readonly apply: (course: CourseSpec, make: Maker) => CourseSpec | null;
}

const onQuiz =
  (change: (quiz: QuizSpec, make: Maker) => QuizSpec | null): QuizChange['apply'] =>
  (course, make) => {
    const quiz = change(course.quiz, make);
    return quiz && { ...course, quiz };
  };

const onSection = (change: (section: SectionSpec, make: Maker) => SectionSpec | null): QuizChange['apply'] =>
  onQuiz((quiz, make) => {
    const order = make.chance.shuffled(quiz.sections.map((_, at) => at));
    for (const at of order) {
      const section = change(quiz.sections[at]!, make);
      if (section) return { ...quiz, sections: quiz.sections.map((s, n) => (n === at ? section : s)) };
    }
    return null;
  });

export const QUIZ_CHANGES: readonly QuizChange[] = [
  {
    name: 'the title of the quiz',
    facets: ['title'],
    apply: onQuiz((quiz, make) => ({ ...quiz, title: make.phrase(3, 5) })),
  },
  {
    name: 'instructions',
    facets: ['instructions'],
    apply: onQuiz((quiz, make) => ({ ...quiz, instructions: make.phrase(5, 9) })),
  },
  {
    name: 'attempts',
    facets: ['attempts'],
    apply: onQuiz((quiz) => ({ ...quiz, attempts: (quiz.attempts ?? 3) + 1 })),
  },
  {
    name: 'time',
    facets: ['time-limit'],
    apply: onQuiz((quiz) => ({ ...quiz, minutes: (quiz.minutes ?? 10) + 5 })),
  },
  {
    name: 'the title of a section',
    facets: ['sections'],
    apply: onSection((s, make) => ({ ...s, title: make.phrase(2, 4) })),
  },
  {
    name: 'a look-alike letter in the title of a section',
    facets: ['sections'],
    apply: onSection((s) => (lookalike(s.title) === null ? null : { ...s, title: lookalike(s.title)! })),
  },
  {
    name: 'shuffle of a section',
    facets: ['shuffle'],
    apply: onSection((s) => ({ ...s, shuffle: !s.shuffle })),
  },
  {
    name: 'order in a section that is not shuffled',
    facets: ['membership'],
    apply: onSection((s) =>
      s.shuffle || s.pick !== null || s.items.length < 2 ? null : { ...s, items: swap(s.items, 0, 1) },
    ),
  },
  {
    name: 'how many are drawn',
    facets: ['draw'],
    also: ['points'],
    apply: onSection((s) => (s.pick === null ? null : { ...s, pick: s.pick > 1 ? s.pick - 1 : s.pick + 1 })),
  },
  {
    name: 'the last item of a section moved to the start of the next',
    facets: ['membership'],
    apply: onQuiz((quiz) => {
      const at = quiz.sections.findIndex((s, n) => {
        const next = quiz.sections[n + 1];
        return s.pick === null && s.items.length > 1 && next?.pick === null;
      });
      if (at < 0) return null;
      const last = quiz.sections[at]!.items.at(-1)!;
      return {
        ...quiz,
        sections: quiz.sections.map((s, n) =>
          n === at
            ? { ...s, items: s.items.slice(0, -1) }
            : n === at + 1
              ? { ...s, items: [last, ...s.items] }
              : s,
        ),
      };
    }),
  },
];
