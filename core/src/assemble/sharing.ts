import type { Item, Quiz } from '../model/holding.ts';
import { inOwnDraw, quizItems } from '../model/quizzes.ts';
import { choicesOf } from '../model/options.ts';
import { unmovable } from './shuffleChoices.ts';

/** What two versions beside one another have in common, and the least that any two could. */
export interface Sharing {
  readonly versions: readonly [string, string];
  readonly items: { readonly shared: number; readonly least: number };
  /** Shared items that stand at the same number. */
  readonly places: { readonly shared: number; readonly least: number };
  /** Choices of shared items that stand at the same letter. */
  readonly choices: { readonly shared: number; readonly least: number };
}

interface Settled {
  readonly name: string;
  readonly quiz: Quiz;
  readonly items: readonly Item[];
}

/** Each version against the next, and the last against the first where there are more than two. */
export function sharing(
  quiz: Quiz,
  given: ReadonlyMap<string, Item>,
  versions: readonly Settled[],
): Sharing[] {
  const pairs = versions.flatMap((v, at): [Settled, Settled][] => {
    const next = versions[at + 1] ?? (versions.length > 2 ? versions[0] : undefined);
    return next ? [[v, next]] : [];
  });
  const items = leastItems(quiz);
  const places = leastPlaces(quiz);
  return pairs.map(([a, b]) => sharedBy(a, b, given, items, places));
}

/** Two draws of k from n share at least 2k - n; what everybody is set is always shared. */
const leastItems = (quiz: Quiz): number =>
  quiz.sections.reduce((sum, s) => {
    const fixed = s.items.filter((r) => !inOwnDraw(s, r.item)).length;
    const { pick = 0, pool = [] } = s.draw ?? {};
    return sum + fixed + Math.max(0, 2 * pick - pool.length);
  }, 0);

/** Items of sections that are not shuffled stay where they are; a single one has nowhere to go. */
const leastPlaces = (quiz: Quiz): number =>
  quiz.sections.reduce((sum, s) => {
    const fixed = s.items.filter((r) => !inOwnDraw(s, r.item)).length;
    const count = fixed + (s.draw?.pick ?? 0);
    return sum + (s.shuffle && count > 1 ? 0 : fixed);
  }, 0);

function sharedBy(
  a: Settled,
  b: Settled,
  given: ReadonlyMap<string, Item>,
  items: number,
  places: number,
): Sharing {
  const [left, right] = [quizItems(a.quiz), quizItems(b.quiz)];
  const there = new Set(right);
  const shared = [...new Set(left.filter((id) => there.has(id)))];
  const [mine, theirs] = [a, b].map((v) => new Map(v.items.map((i) => [i.id, i])));
  let same = 0;
  let least = 0;
  for (const id of shared) {
    const [x, y] = [choicesOf(mine!.get(id) ?? NONE), choicesOf(theirs!.get(id) ?? NONE)];
    same += x.filter((c, at) => y[at]?.id === c.id).length;
    least += unmovable(given.get(id) ?? NONE);
  }
  return {
    versions: [a.name, b.name],
    items: { shared: shared.length, least: items },
    places: { shared: left.filter((id, at) => right[at] === id).length, least: places },
    choices: { shared: same, least },
  };
}

const NONE = { body: [] };
