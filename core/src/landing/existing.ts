import { compareHoldings } from '../compare/compare.ts';
import { rubricDifferences, sharedCriteria } from '../compare/compareRubrics.ts';
import { fingerprint } from '../match/asked.ts';
import { jaccard } from '../match/likeness.ts';
import type { Bank, Holding, Item, Link, Quiz } from '../model/holding.ts';
import { quizItems } from '../model/quizzes.ts';
import type { Rubric } from '../model/rubric.ts';
import { foldName } from '../model/foldName.ts';
import type { ExistingState, ThingKind } from './types.ts';

interface Existing {
  readonly state: ExistingState;
  readonly there: string | null;
}

/** Share of common items from which two things are versions of one. */
const VERSION = 0.5;

/** What a thing is in a holding, with the ids of its items. */
interface Known {
  readonly id: string;
  readonly title: string;
  readonly prints: ReadonlySet<string>;
}

/**
 * Tells, for things of a source, whether a destination has them already: the same content by fingerprints and
 * scores, another version of it, or a mere namesake.
 */
export class Recogniser {
  readonly #there: Readonly<Record<'quiz' | 'bank', readonly Known[]>>;
  readonly #links: readonly Link[];

  constructor(
    private readonly source: Holding,
    private readonly destination: Holding,
  ) {
    const prints = printsOf(destination.items);
    this.#there = {
      quiz: destination.quizzes.map((q) => known(q, quizItems(q), prints)),
      bank: destination.banks.map((b) => known(b, b.items, prints)),
    };
    this.#links = destination.links;
    this.#prints = printsOf(source.items);
  }

  readonly #prints: ReadonlyMap<string, string>;

  find(kind: ThingKind, node: string): Existing {
    if (kind === 'link') return this.#link(node);
    if (kind === 'rubric') return this.#rubric(node);
    const thing =
      kind === 'quiz'
        ? this.source.quizzes.find((q) => q.id === node)
        : this.source.banks.find((b) => b.id === node);
    if (!thing) return { state: 'none', there: null };
    const mine = known(thing, itemsOf(thing), this.#prints);
    const all = this.#there[kind];
    const ranked = all
      .map((there) => ({
        there,
        share: mine.prints.size === 0 && there.prints.size === 0 ? 0 : jaccard(mine.prints, there.prints),
        named: sameName(mine, there),
      }))
      .sort((a, b) => b.share - a.share || Number(b.named) - Number(a.named));
    const best = ranked[0];
    if (best && best.share === 1 && this.#same(kind, thing.id, best.there.id))
      return { state: 'same', there: best.there.id };
    if (best && best.share >= VERSION) return { state: 'version', there: best.there.id };
    const namesake = all.find((there) => sameName(mine, there));
    return namesake ? { state: 'namesake', there: namesake.id } : { state: 'none', there: null };
  }

  /** Same items, and they count the same on both sides. */
  #same(kind: 'quiz' | 'bank', left: string, right: string): boolean {
    const { pairs, missing, extra, containers } = compareHoldings(
      only(this.source, kind, left),
      only(this.destination, kind, right),
    );
    const settled = new Set(['title', 'dates', 'instructions', 'attempts', 'time-limit', 'pass-mark']);
    const inner = containers.filter((c) => c.kind === kind).flatMap((c) => c.differences);
    return (
      missing.length + extra.length === 0 &&
      pairs.every((p) => p.state === 'intact') &&
      inner.every((d) => settled.has(d.facet))
    );
  }

  /**
   * A rubric of the same content is the same whatever its name; one that shares half of the criteria is a
   * version.
   */
  #rubric(node: string): Existing {
    const rubric = this.source.rubrics.find((r) => r.id === node);
    const all = this.destination.rubrics;
    if (!rubric) return { state: 'none', there: null };
    const same = all.filter((r) => rubricDifferences(rubric, r).every((d) => d.facet === 'title'));
    if (same.length > 0)
      return { state: 'same', there: (same.find((r) => sameName(r, rubric)) ?? same[0]!).id };
    const share = (r: Rubric): number =>
      sharedCriteria(rubric, r) / Math.max(1, rubric.criteria.length, r.criteria.length);
    const [best] = all.filter((r) => share(r) >= VERSION).sort((a, b) => share(b) - share(a));
    if (best) return { state: 'version', there: best.id };
    const namesake = all.find((r) => sameName(r, rubric));
    return namesake ? { state: 'namesake', there: namesake.id } : { state: 'none', there: null };
  }

  #link(node: string): Existing {
    const link = this.source.links.find((l) => l.id === node);
    if (!link) return { state: 'none', there: null };
    const same = this.#links.find((l) => l.url === link.url && l.kind === link.kind);
    if (same) return { state: 'same', there: same.id };
    const namesake = this.#links.find((l) => sameName(l, link));
    return namesake ? { state: 'namesake', there: namesake.id } : { state: 'none', there: null };
  }
}

const itemsOf = (thing: Quiz | Bank): readonly string[] =>
  'sections' in thing ? quizItems(thing) : thing.items;

const printsOf = (items: readonly Item[]): Map<string, string> =>
  new Map(items.map((i) => [i.id, fingerprint(i)]));

function known(
  thing: { id: string; title: string },
  items: readonly string[],
  prints: ReadonlyMap<string, string>,
): Known {
  return { id: thing.id, title: thing.title, prints: new Set(items.map((i) => prints.get(i) ?? i)) };
}

const sameName = (a: { title: string }, b: { title: string }): boolean =>
  foldName(a.title) !== '' && foldName(a.title) === foldName(b.title);

/** A holding with one thing and its items alone. */
function only(holding: Holding, kind: 'quiz' | 'bank', id: string): Holding {
  const quizzes = kind === 'quiz' ? holding.quizzes.filter((q) => q.id === id) : [];
  const banks = kind === 'bank' ? holding.banks.filter((b) => b.id === id) : [];
  const items = new Set([...quizzes, ...banks].flatMap(itemsOf));
  return {
    ...holding,
    quizzes,
    banks,
    links: [],
    files: [],
    items: holding.items.filter((i) => items.has(i.id)),
  };
}
