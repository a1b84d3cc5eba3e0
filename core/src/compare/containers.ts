import type { Bank, Holding, Item, Quiz } from '../model/holding.ts';
import { inOwnDraw, instructionsOf, quizItems, quizPoints } from '../model/quizzes.ts';
import { tidyNumber } from '../model/number.ts';
import { difference, Differences } from './differences.ts';
import { pairUp } from './pairing.ts';
import type { DrawSaid, MembershipSaid, PointsSaid, ShuffleSaid } from './said.ts';
import type { ContainerReport, Difference } from './types.ts';

/** Source item id to arrived item id. */
type ItemMap = ReadonlyMap<string, string>;

interface Sides {
  readonly source: Holding;
  readonly arrived: Holding;
  readonly items: ItemMap;
}

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
  items: ItemMap,
): ((a: T, b: T) => boolean)[] {
  const shared = (a: T, b: T): number => {
    const there = new Set(members(b));
    return members(a).filter((id) => there.has(items.get(id) ?? '')).length;
  };
  const titled = (a: T, b: T): boolean => a.title !== '' && a.title === b.title;
  const alike = (a: T, b: T): boolean => shared(a, b) * 2 >= Math.max(1, members(a).length);
  // Systems count from 1 in every course: an identifier alone is believed only where nothing speaks against
  // it.
  return [
    (a, b) => a.id === b.id && a.title === b.title,
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
  membership(out, a.items, b.items, sides);
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
  out.add('sections', sectionTitles(a), sectionTitles(b));
  out.add('shuffle', shuffles(a), shuffles(b));
  out.add('draw', draws(a), draws(b));
  const fixed = (quiz: Quiz): string[] =>
    quiz.sections.flatMap((s) => s.items.filter((r) => !inOwnDraw(s, r.item)).map((r) => r.item));
  membership(out, fixed(a), fixed(b), sides);
  const points = (quiz: Quiz, holding: Holding): PointsSaid => ({
    points: quizPoints(quiz, new Map(holding.items.map((i) => [i.id, i]))),
    percentage: false,
  });
  out.add('points', points(a, sides.source), points(b, sides.arrived));
  return out.list;
}

/** At most this many items are named in a difference; the counts tell the rest. */
const NAMED = 10;

/** Which items are in it, and, where they are the same, in which order. */
function membership(out: Differences, left: readonly string[], right: readonly string[], sides: Sides): void {
  const wanted = left.map((id) => sides.items.get(id) ?? `\u0000${id}`);
  if (wanted.join('\u0001') === right.join('\u0001')) return;
  const there = new Set(right);
  const planned = new Set(wanted);
  const gone = left.filter((_, at) => !there.has(wanted[at]!));
  const added = right.filter((id) => !planned.has(id));
  const names = (ids: readonly string[], items: readonly Item[]): string[] =>
    ids.slice(0, NAMED).map((id) => items.find((i) => i.id === id)?.title || id);
  const { source, arrived } = sides;
  if (gone.length > 0 || added.length > 0)
    out.add(
      'membership',
      { items: left.length, only: names(gone, source.items) },
      { items: right.length, only: names(added, arrived.items) },
    );
  else {
    // Of a long list the part is named that begins with the first one out of its place.
    const from = left.length > NAMED ? wanted.findIndex((id, at) => id !== right[at]) : 0;
    const order = (ids: readonly string[], items: readonly Item[]): MembershipSaid => ({
      order: names(ids.slice(from), items),
    });
    out.list.push(difference('membership', order(left, source.items), order(right, arrived.items)));
  }
}

const squeeze = (text: string | null): string => (text ?? '').replace(/\s+/gu, ' ').trim();
const tidy = (value: number | null): number | null => (value === null ? null : tidyNumber(value));
/** Without what repeats the one before it. */
const runs = <T>(list: readonly T[]): T[] => list.filter((x, at) => x !== list[at - 1]);
/** An untitled section and none at all are the same; so is the one section every cartridge has. */
const sectionTitles = (quiz: Quiz): string[] =>
  runs(quiz.sections.map((s) => s.title)).filter((t) => t !== '');
const shuffles = (quiz: Quiz): ShuffleSaid[] =>
  runs(quiz.sections.map((s) => s.shuffle)).map((shuffled) => ({ of: 'section', shuffled }));

const draws = (quiz: Quiz): DrawSaid[] =>
  quiz.sections.flatMap(({ draw }) =>
    draw
      ? [
          {
            pick: draw.pick,
            of: draw.pool.length,
            pointsEach: Number.isFinite(draw.pointsEach) ? tidyNumber(draw.pointsEach) : null,
            withReplacement: draw.withReplacement,
          },
        ]
      : [],
  );
