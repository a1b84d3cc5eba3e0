import type { Arrived } from './formats/package.ts';
import { setPoints, type Answer, type Held, type HeldItem } from './held.ts';

/** What a simulated system does of its own accord. Every one can be switched alone. */
export const HABITS = {
  landsByPosition: 'puts things in the section of the same number, whatever its name',
  refusesSectionMismatch: 'refuses an import when the source has another number of sections',
  equalDates: 'sets the closing date to the opening date',
  dropsInstructions: 'drops the instructions of quizzes',
  namesAfterExporter: 'names what arrives after the person who brought it',
  nameless: 'gives what arrives no name',
  doublesOnRepeat: 'makes a second copy of what is there already',
  leavesBankOut: 'leaves banks out of an export of single things, and fixes what they were drawn for',
  roundsPoints: 'rounds points to whole numbers',
  dropsTolerance: 'accepts numbers only exactly',
  lowersCase: 'takes any case where the case mattered',
  stripsFeedback: 'strips feedback',
  losesSpacedFiles: 'loses files that have a blank in their name',
  reordersChoices: 'puts choices in another order',
  locksRubrics: 'locks the rubrics that come in',
  losesAttachments: 'does not keep what a rubric that came in is attached to',
  appendsRubrics: 'makes a second copy of every rubric it has when one comes in',
  dropsLevelTexts: 'drops the descriptions of levels from rubrics that come in',
  slow: 'takes its time',
  failsHalfWay: 'breaks an import off half way; the next one goes through',
  losesAnswers: 'does what it is asked and loses the answer',
} as const;
export type Habit = keyof typeof HABITS;
export type Habits = Record<Habit, boolean>;
export const NO_HABITS = Object.fromEntries(Object.keys(HABITS).map((h) => [h, false])) as Habits;

/** What the habits that touch content make of what arrives. */
export function withHabits({ held, files }: Arrived, habits: Habits): Arrived {
  const items = held.items.map((given) => itemWithHabits(given, habits));
  const points = new Map(items.map((i) => [i.id, i.points]));
  const lost = (path: string): boolean => habits.losesSpacedFiles && /\s/u.test(path);
  return {
    files: Object.fromEntries(Object.entries(files).filter(([path]) => !lost(path))),
    held: {
      ...held,
      items,
      quizzes: held.quizzes.map((q) => ({
        ...q,
        instructions: habits.dropsInstructions ? null : q.instructions,
        sections: q.sections.map((s) => ({
          ...s,
          instructions: habits.dropsInstructions ? null : s.instructions,
          draw:
            s.draw && habits.roundsPoints
              ? { ...s.draw, pointsEach: points.get(s.draw.pool[0] ?? '') ?? s.draw.pointsEach }
              : s.draw,
        })),
      })),
    },
  };
}

function itemWithHabits(given: HeldItem, habits: Habits): HeldItem {
  let item = given;
  if (habits.roundsPoints) item = setPoints(item, Math.max(1, Math.round(item.points)));
  if (habits.dropsTolerance) item = { ...item, answer: exactly(item.answer) };
  if (habits.lowersCase) item = { ...item, answer: anyCase(item.answer) };
  if (habits.stripsFeedback) item = { ...item, feedback: [] };
  if (habits.reordersChoices) item = { ...item, answer: reversed(item.answer) };
  return item;
}

/** A number alone where there was a range around it. */
const exactly = (answer: Answer): Answer =>
  answer.kind === 'number'
    ? {
        ...answer,
        accepted: answer.accepted.map((a) =>
          a.exact === null ? a : { ...a, low: a.exact, high: a.exact, includesLow: true, includesHigh: true },
        ),
      }
    : answer;

const anyCase = (answer: Answer): Answer =>
  answer.kind === 'text'
    ? { ...answer, accepted: answer.accepted.map((a) => ({ ...a, caseSensitive: false })) }
    : answer;

const reversed = (answer: Answer): Answer =>
  answer.kind === 'choice' && !answer.shuffle
    ? { ...answer, choices: [...answer.choices].reverse() }
    : answer;

/** Quizzes whose draws have become fixed items: the first so many of each pool. */
export function frozen(held: Held): Held {
  return {
    ...held,
    banks: [],
    quizzes: held.quizzes.map((q) => ({
      ...q,
      sections: q.sections.map((s) =>
        s.draw
          ? {
              ...s,
              draw: null,
              items: [...s.items, ...s.draw.pool.slice(0, s.draw.pick).map((item) => ({ item, weight: 1 }))],
            }
          : s,
      ),
    })),
  };
}
