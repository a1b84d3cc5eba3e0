import { quizItems } from '../model/quizItems.ts';
import type { Bank, Holding, Item, Quiz, Section } from '../model/holding.ts';
import { instructionsOf, quizPoints } from '../report/inspect.ts';
import { plainNumber } from '../model/number.ts';
import { pairUp } from './pairing.ts';
import type { ContainerReport, Difference, Facet } from './types.ts';

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

class Differences {
  readonly list: Difference[] = [];
  add(facet: Facet, from: string, to: string): void {
    if (from !== to) this.list.push({ facet, from, to, example: null });
  }
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
  out.add('attempts', said(a.settings.attempts), said(b.settings.attempts));
  out.add(
    'time-limit',
    said(a.settings.timeLimitMinutes, ' minutes'),
    said(b.settings.timeLimitMinutes, ' minutes'),
  );
  out.add('pass-mark', said(a.settings.passMark), said(b.settings.passMark));
  out.add('dates', dates(a), dates(b));
  out.add('sections', runs(a, sectionTitle), runs(b, sectionTitle));
  out.add('shuffle', runs(a, shuffled), runs(b, shuffled));
  out.add('draw', draws(a, sides.items), draws(b, null));
  const fixed = (quiz: Quiz): string[] =>
    quiz.sections.flatMap((s) => s.items.filter((r) => !s.draw?.pool.includes(r.item)).map((r) => r.item));
  membership(out, fixed(a), fixed(b), sides);
  const points = (quiz: Quiz, holding: Holding): string =>
    plainNumber(quizPoints(quiz, new Map(holding.items.map((i) => [i.id, i]))));
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
  const name = (items: readonly Item[], id: string): string => items.find((i) => i.id === id)?.title || id;
  const list = (ids: readonly string[], items: readonly Item[]): string =>
    ids.length > 0
      ? `: ${ids
          .slice(0, NAMED)
          .map((id) => name(items, id))
          .join(', ')}`
      : '';
  if (gone.length > 0 || added.length > 0) {
    out.add(
      'membership',
      `${left.length} items${gone.length > 0 ? `, only here${list(gone, sides.source.items)}` : ''}`,
      `${right.length} items${added.length > 0 ? `, only here${list(added, sides.arrived.items)}` : ''}`,
    );
  } else
    out.add(
      'membership',
      `order${list(left, sides.source.items)}`,
      `order${list(right, sides.arrived.items)}`,
    );
}

const squeeze = (text: string | null): string => (text ?? '').replace(/\s+/gu, ' ').trim();
const said = (value: number | string | null, unit = ''): string =>
  value === null
    ? 'not set'
    : `${typeof value === 'number' ? plainNumber(value) : value}${typeof value === 'number' ? unit : ''}`;
const dates = (quiz: Quiz): string => `${said(quiz.settings.opens)} to ${said(quiz.settings.closes)}`;
/** An untitled section and none at all are the same; so is the one section every cartridge has. */
const sectionTitle = (section: Section): string => section.title;
/** One value a section, repeats and blanks left out. */
const runs = (quiz: Quiz, say: (section: Section) => string): string =>
  quiz.sections
    .map(say)
    .filter((t, at, all) => t !== '' && t !== all[at - 1])
    .join(' / ');
const shuffled = (section: Section): string => (section.shuffle ? 'random order' : 'fixed order');

function draws(quiz: Quiz, items: ItemMap | null): string {
  return quiz.sections
    .filter((s) => s.draw !== null)
    .map(({ draw }) => {
      const pool = draw!.pool.map((id) => (items ? (items.get(id) ?? `\u0000${id}`) : id)).sort();
      const points = Number.isFinite(draw!.pointsEach) ? plainNumber(draw!.pointsEach) : '?';
      return `${draw!.pick} of ${pool.length}, ${points} points each${draw!.withReplacement ? ', with repeats' : ''}`;
    })
    .join('; ');
}
