import { interactionsOf, make, recognise, type Holding, type Item, type Quiz } from '@alforja/core';

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
export function withHabits(holding: Holding, habits: Habits): Holding {
  const lost = (path: string): boolean => habits.losesSpacedFiles && /\s/u.test(path);
  const items = holding.items.map((given) => {
    let item = given;
    if (habits.roundsPoints) item = setPoints(item, Math.max(1, Math.round(item.points)));
    if (habits.dropsTolerance) item = exactNumber(item);
    if (habits.lowersCase) item = anyCase(item);
    if (habits.stripsFeedback) item = { ...item, feedback: [] };
    if (habits.reordersChoices) item = reversed(item);
    return { ...item, files: item.files.map((f) => ({ ...f, present: f.present && !lost(f.path) })) };
  });
  const points = new Map(items.map((i) => [i.id, i.points]));
  return {
    ...holding,
    items,
    files: holding.files.filter((f) => !lost(f.path)),
    quizzes: holding.quizzes.map((q) => ({
      ...q,
      ...(habits.dropsInstructions
        ? { settings: { ...q.settings, instructions: null }, test: withoutRubrics(q.test) }
        : {}),
      sections: q.sections.map((s) => ({
        ...s,
        instructions: habits.dropsInstructions ? null : s.instructions,
        draw:
          s.draw && habits.roundsPoints
            ? { ...s.draw, pointsEach: points.get(s.draw.pool[0] ?? '') ?? s.draw.pointsEach }
            : s.draw,
      })),
    })),
  };
}

const withoutRubrics = (test: Quiz['test']): Quiz['test'] =>
  test &&
  (JSON.parse(
    JSON.stringify(test, (key, value: unknown) => (key === 'rubrics' ? [] : value)),
  ) as Quiz['test']);

/** Makes an item worth so many points. */
export function setPoints(item: Item, points: number): Item {
  const factor = item.points > 0 ? points / item.points : 1;
  return {
    ...item,
    points,
    scale: item.scale * factor,
    pointsSources: [],
    outcomes: item.outcomes.map((o) =>
      o.id === item.scoreOutcome && o.normalMaximum !== null
        ? { ...o, normalMaximum: o.normalMaximum * factor }
        : o,
    ),
  };
}

function exactNumber(item: Item): Item {
  const { shape, best } = recognise(item);
  if (shape.kind !== 'numeric' || !shape.tolerance) return item;
  const id = item.responses[0]!.id;
  const right = make.call('equal', [make.variable(id), make.number(shape.value)], { toleranceMode: 'exact' });
  return {
    ...item,
    responses: [{ ...item.responses[0]!, baseType: 'float', correct: [shape.value] }],
    scoring: {
      rules: [make.when(right, [make.set(item.scoreOutcome, make.number(best.raw))])],
      untranslated: [],
    },
  };
}

const anyCase = (item: Item): Item =>
  JSON.parse(
    JSON.stringify(item, (key, value: unknown) =>
      key === 'caseSensitive' ? (typeof value === 'string' ? 'false' : false) : value,
    ),
  ) as Item;

function reversed(item: Item): Item {
  const ids = new Set(
    interactionsOf(item).flatMap((i) => (i.kind === 'choice' && !i.shuffle ? [i.responseId] : [])),
  );
  return JSON.parse(
    JSON.stringify(item, (_, value: unknown) => {
      const node = value as { kind?: string; responseId?: string; choices?: unknown[] } | null;
      return node?.kind === 'choice' && ids.has(node.responseId ?? '')
        ? { ...node, choices: [...node.choices!].reverse() }
        : value;
    }),
  ) as Item;
}

/** Quizzes whose draws have become fixed items: the first so many of each pool. */
export function frozen(holding: Holding): Holding {
  return {
    ...holding,
    banks: [],
    quizzes: holding.quizzes.map((q) => ({
      ...q,
      test: null,
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
