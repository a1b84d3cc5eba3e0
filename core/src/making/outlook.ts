import { secondsFor } from '../exam/time.ts';
import type { Item, Quiz } from '../model/holding.ts';
import { tidyNumber } from '../model/number.ts';
import { setItems } from '../model/quizzes.ts';
import { kindOf } from '../report/kind.ts';

/** What a quiz that is being made comes to, for one candidate. */
export interface Outlook {
  /** Questions that one candidate is set. */
  readonly items: number;
  /** Points that one candidate can reach: the least and the most, by what is drawn. */
  readonly points: { readonly least: number; readonly most: number };
  /** Minutes that are expected, on average. */
  readonly minutes: number;
  /** Questions and points by category and by kind, on average; the empty text is those without a category. */
  readonly categories: ReadonlyMap<string, Share>;
  readonly kinds: ReadonlyMap<string, Share>;
  /** By section, in order. */
  readonly sections: readonly { readonly least: number; readonly most: number; readonly minutes: number }[];
}
export interface Share {
  readonly items: number;
  readonly points: number;
}

/** What an item counts for. */
export interface Counted {
  readonly id: string;
  readonly points: number;
  readonly category: string | null;
  /** As `kindOf` names it. */
  readonly kind: string;
  readonly seconds: number;
}
export const counted = (item: Item): Counted => ({
  id: item.id,
  points: item.points,
  category: item.category,
  kind: kindOf(item),
  seconds: secondsFor(item),
});

/** What a quiz comes to: its fixed items, and of each draw as much as is drawn of it on average. */
export function outlookOf(quiz: Quiz, items: readonly Counted[]): Outlook {
  const byId = new Map(items.map((i) => [i.id, i]));
  const categories = new Map<string, Share>();
  const kinds = new Map<string, Share>();
  const note = (into: Map<string, Share>, name: string, times: number, points: number): void => {
    const had = into.get(name) ?? { items: 0, points: 0 };
    into.set(name, { items: had.items + times, points: had.points + times * points });
  };
  const sections = quiz.sections.map(({ items: refs, draw }) => {
    const fixed = refs.flatMap((r) => byId.get(r.item) ?? []);
    const pool = (draw?.pool ?? []).flatMap((id) => byId.get(id) ?? []);
    const pick = Math.min(draw?.pick ?? 0, pool.length);
    const share = pool.length > 0 ? pick / pool.length : 0;
    let seconds = 0;
    for (const [list, times] of [
      [fixed, 1],
      [pool, share],
    ] as const)
      for (const item of list) {
        note(categories, item.category ?? '', times, item.points);
        note(kinds, item.kind, times, item.points);
        seconds += times * item.seconds;
      }
    const sure = sum(fixed.map((i) => i.points));
    const worth = pool.map((i) => i.points).sort((a, b) => a - b);
    return {
      least: tidyNumber(sure + sum(worth.slice(0, pick))),
      most: tidyNumber(sure + sum(pick > 0 ? worth.slice(-pick) : [])),
      minutes: seconds / 60,
    };
  });
  return {
    items: setItems(quiz),
    points: {
      least: tidyNumber(sum(sections.map((s) => s.least))),
      most: tidyNumber(sum(sections.map((s) => s.most))),
    },
    minutes: sum(sections.map((s) => s.minutes)),
    categories: tidied(categories),
    kinds: tidied(kinds),
    sections,
  };
}

const sum = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0);

/** Averages end in tails of threes and sixes, which say nothing. */
const tidied = (shares: ReadonlyMap<string, Share>): ReadonlyMap<string, Share> =>
  new Map(
    [...shares].map(([name, s]) => [name, { items: tidyNumber(s.items), points: tidyNumber(s.points) }]),
  );
