import { familiesOf } from '../families/families.ts';
import { fingerprint } from '../match/asked.ts';
import { likePairs } from '../match/likePairs.ts';
import type { Item, Quiz } from '../model/holding.ts';
import { inOwnDraw, quizItems } from '../model/quizzes.ts';

/** Two questions of a quiz that ask the same, or nearly, and how likely one candidate is set both. */
export interface MetTwice {
  readonly items: readonly [string, string];
  /** `same` in the same words, `near` in nearly the same, `family` as replicas of one exercise. */
  readonly because: 'same' | 'near' | 'family';
  readonly chance: number;
}

/** Where an item stands in a quiz: for everybody, or in the draw of a section. */
interface Standing {
  readonly section: number;
  /** Null where everybody is set it. */
  readonly draw: { readonly pick: number; readonly of: number; readonly repeats: boolean } | null;
}

/** Pairs that would fill a screen; the likeliest are told. */
const MOST = 500;
/** Of a crowd that all ask the same, so many are paired: more tell nothing more. */
const CROWD = 100;

/**
 * Pairs of a quiz that one candidate may meet both of: the same question twice, near duplicates, replicas of one
 * exercise. The chance is exact, of two in one draw, of one in a draw and one for everybody, and of two in two draws.
 */
export function metTwice(quiz: Quiz, items: readonly Item[]): MetTwice[] {
  const standing = standings(quiz);
  const here = items.filter((i) => standing.has(i.id));
  const found = new Map<string, MetTwice>();
  const add = (a: string, b: string, because: MetTwice['because']): void => {
    const key = [a, b].sort().join('\u0001');
    if (a === b || found.has(key)) return;
    const chance = bothMet(standing.get(a)!, standing.get(b)!);
    if (chance > 0) found.set(key, { items: [a, b], because, chance });
  };
  const prints = new Map<string, string[]>();
  for (const item of here) {
    const print = fingerprint(item);
    const same = prints.get(print) ?? [];
    if (same.length >= CROWD) continue;
    same.forEach((other) => add(other, item.id, 'same'));
    prints.set(print, [...same, item.id]);
  }
  for (const family of familiesOf({ items: here, quizzes: [quiz] })) {
    const ids = family.items.slice(0, CROWD).map((i) => i.id);
    ids.forEach((a, at) => ids.slice(at + 1).forEach((b) => add(a, b, 'family')));
  }
  for (const { item, other } of likePairs(here)) add(other.id, item.id, 'near');
  // One item that stands in several places is the same question, too.
  for (const [id, places] of standing)
    places.forEach((one, at) => {
      for (const other of places.slice(at + 1)) {
        const chance = both(one, other, true);
        if (chance > 0)
          found.set(`${id} ${at} ${other.section}`, { items: [id, id], because: 'same', chance });
      }
    });
  return [...found.values()].sort((x, y) => y.chance - x.chance).slice(0, MOST);
}

function standings(quiz: Quiz): Map<string, Standing[]> {
  const out = new Map<string, Standing[]>();
  const known = new Set(quizItems(quiz));
  const stand = (id: string, standing: Standing): void => {
    if (known.has(id)) out.set(id, [...(out.get(id) ?? []), standing]);
  };
  quiz.sections.forEach((s, section) => {
    for (const { item } of s.items) if (!inOwnDraw(s, item)) stand(item, { section, draw: null });
    const { draw } = s;
    if (draw)
      for (const id of new Set(draw.pool))
        stand(id, {
          section,
          draw: { pick: draw.pick, of: draw.pool.length, repeats: draw.withReplacement },
        });
  });
  return out;
}

/** The likeliest way in which both are met. */
const bothMet = (a: readonly Standing[], b: readonly Standing[]): number =>
  Math.max(0, ...a.flatMap((x) => b.map((y) => both(x, y, false))));

/** @param oneItem whether both places are of one item */
function both(a: Standing, b: Standing, oneItem: boolean): number {
  const chance = ({ draw }: Standing): number => {
    if (!draw) return 1;
    return draw.repeats ? 1 - (1 - 1 / draw.of) ** draw.pick : Math.min(1, draw.pick / draw.of);
  };
  if (a.section !== b.section || !a.draw || !b.draw) return chance(a) * chance(b);
  if (oneItem) return 0;
  const { pick, of, repeats } = a.draw;
  // Of one draw: k (k - 1) of n (n - 1), without putting back.
  if (repeats) return 1 - 2 * (1 - 1 / of) ** pick + (1 - 2 / of) ** pick;
  return pick >= of ? 1 : (pick * (pick - 1)) / (of * (of - 1));
}
