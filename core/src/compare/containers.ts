import { canonicalText } from '../match/canonical.ts';
import type { Bank, Holding, Quiz } from '../model/holding.ts';
import { instructionsOf, quizItems, quizPoints } from '../model/quizzes.ts';
import { composed } from '../model/composed.ts';
import { tidyNumber } from '../model/number.ts';
import { itemWeights } from '../model/places.ts';
import { Differences } from './differences.ts';
import { compareMembers, type Sides } from './members.ts';
import { pairUp } from './pairing.ts';
import type { DrawSaid, PointsSaid } from './said.ts';
import { compareSections } from './sections.ts';
import type { ContainerReport, Difference } from './types.ts';

/**
 * Compares quizzes and banks: paired by identifier and title, by the items they share, then by one of them
 * alone.
 */
export function compareContainers(sides: Sides): ContainerReport[] {
  const { source, arrived, items } = sides;
  return [
    ...pairUp('quiz', source.quizzes, arrived.quizzes, rulesFor<Quiz>(quizItems, items), (a, b) =>
      compareQuizzes(a, b, sides),
    ),
    ...pairUp(
      'bank',
      source.banks,
      arrived.banks,
      rulesFor<Bank>((b) => b.items, items),
      (a, b) => compareBanks(a, b, sides),
    ),
  ];
}

/** How containers of items answer to each other, the surest rule first. */
function rulesFor<T extends { id: string; title: string }>(
  members: (container: T) => readonly string[],
  items: ReadonlyMap<string, string>,
): ((a: T, b: T) => boolean)[] {
  const shared = (a: T, b: T): number => {
    const there = new Set(members(b));
    return members(a).filter((id) => there.has(items.get(id) ?? '')).length;
  };
  const titled = (a: T, b: T): boolean => a.title !== '' && composed(a.title) === composed(b.title);
  const alike = (a: T, b: T): boolean => shared(a, b) * 2 >= Math.max(1, members(a).length);
  // Systems count from 1 in every course: an identifier alone is believed only where nothing speaks against
  // it.
  return [
    (a, b) => a.id === b.id && composed(a.title) === composed(b.title),
    (a, b) => a.id === b.id && alike(a, b),
    (a, b) => titled(a, b) && shared(a, b) > 0,
    alike,
    titled,
    (a, b) => a.id === b.id,
  ];
}

function compareBanks(a: Bank, b: Bank, sides: Sides): Difference[] {
  const out = new Differences();
  out.add('title', a.title, b.title);
  compareMembers(out, a.items, b.items, sides);
  return out.list;
}

function compareQuizzes(a: Quiz, b: Quiz, sides: Sides): Difference[] {
  const out = new Differences();
  out.add('title', a.title, b.title);
  out.add('instructions', squeeze(instructionsOf(a)), squeeze(instructionsOf(b)));
  const { settings: left } = a;
  const { settings: right } = b;
  out.add('attempts', left.attempts, right.attempts);
  out.add('time-limit', tidy(left.timeLimitMinutes), tidy(right.timeLimitMinutes));
  out.add('pass-mark', tidy(left.passMark), tidy(right.passMark));
  out.add('dates', { opens: left.opens, closes: left.closes }, { opens: right.opens, closes: right.closes });
  compareSections(out, a, b, sides);
  out.add('draw', draws(a), draws(b));
  out.add('feedback', testFeedback(a), testFeedback(b));
  const points = (quiz: Quiz, holding: Holding): PointsSaid => ({
    points: Number(
      quizPoints(
        quiz,
        new Map(holding.items.map((i) => [i.id, i])),
        itemWeights(holding.quizzes),
      ).toPrecision(9),
    ),
    percentage: false,
  });
  out.add('points', points(a, sides.source), points(b, sides.arrived));
  return out.list;
}

const squeeze = (text: string | null): string => (text ?? '').replace(/\s+/gu, ' ').trim();
const tidy = (value: number | null): number | null => (value === null ? null : tidyNumber(value));

/** What candidates are told of the whole test, and on which value of which outcome. */
const testFeedback = (quiz: Quiz): string[] =>
  (quiz.test?.feedback ?? [])
    .map((f) => `${canonicalText(f.content)} ‹${f.access} ${f.show ? '' : 'not '}${f.outcome} ${f.id}›`)
    .sort();

const draws = (quiz: Quiz): DrawSaid[] =>
  quiz.sections.flatMap(({ draw }) =>
    draw
      ? [
          {
            pick: draw.pick,
            of: draw.pool.length,
            // A mean of points; nine figures are what is left of it once it has been divided and added up again.
            pointsEach: Number.isFinite(draw.pointsEach) ? Number(draw.pointsEach.toPrecision(9)) : null,
            withReplacement: draw.withReplacement,
          },
        ]
      : [],
  );
