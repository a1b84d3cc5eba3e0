import { inOwnDraw } from '../model/quizzes.ts';
import type { Quiz } from '../model/holding.ts';
import type { TestItemRef, TestPart, TestSection, TestStructure } from '../model/testStructure.ts';
import { seeded, shuffled } from '../scoring/random.ts';

/** One item as one candidate gets it. */
export interface Delivered {
  /** The item reference: what outcome processing calls it. */
  readonly ref: string;
  readonly item: string;
  readonly weights: Readonly<Record<string, number>>;
  readonly categories: readonly string[];
  /** Identifiers of the sections it stands in, outermost first. */
  readonly sections: readonly string[];
  /** What the item is worth in this quiz, where a draw says so. */
  readonly pointsEach: number | null;
  /**
   * The part and the sections of the test it stands in, outermost first, for conditions; none for other
   * quizzes.
   */
  readonly within: readonly (TestPart | TestSection)[];
  /** Its own place in the test's structure; null for other quizzes. */
  readonly node: TestItemRef | null;
}

/** What one candidate is set, in order: draws and orders follow from the seed. */
export function deliver(quiz: Quiz, seed: number): Delivered[] {
  const random = seeded(seed);
  return quiz.test ? fromTest(quiz.test, random) : fromSections(quiz, random);
}

function fromSections(quiz: Quiz, random: () => number): Delivered[] {
  return quiz.sections.flatMap((section) => {
    const { draw } = section;
    const plain = (item: string, weight: number, pointsEach: number | null): Delivered => ({
      ref: item,
      item,
      weights: { WEIGHT: weight },
      categories: [],
      sections: [section.id],
      pointsEach,
      within: [],
      node: null,
    });
    const fixed = section.items
      .filter((r) => !inOwnDraw(section, r.item))
      .map((r) => plain(r.item, r.weight, null));
    const drawn = draw ? pick(draw.pool, draw.pick, draw.withReplacement, random) : [];
    const all = [...fixed, ...drawn.map((id) => plain(id, 1, draw!.pointsEach))];
    return section.shuffle ? shuffled(all, random) : all;
  });
}

function pick<T>(pool: readonly T[], count: number, repeats: boolean, random: () => number): T[] {
  if (!repeats) {
    const chosen = new Set(shuffled([...pool.keys()], random).slice(0, count));
    return pool.filter((_, at) => chosen.has(at));
  }
  return pool.length === 0
    ? []
    : Array.from({ length: count }, () => pool[Math.floor(random() * pool.length)]!);
}

const fromTest = (test: TestStructure, random: () => number): Delivered[] =>
  test.parts.flatMap((part) => part.sections.flatMap((s) => fromSection(s, [part], random)));

/**
 * Required children are always set; the rest of a selection is drawn. Fixed ones keep their place when the
 * others shuffle.
 */
function fromSection(
  section: TestSection,
  outer: readonly (TestPart | TestSection)[],
  random: () => number,
): Delivered[] {
  const inside = [...outer, section];
  let children = [...section.children];
  if (section.selection) {
    const { select, withReplacement } = section.selection;
    const required = children.filter((c) => c.required);
    const rest = children.filter((c) => !c.required);
    const drawn = new Set([...required, ...pick(rest, Math.max(0, select - required.length), false, random)]);
    children = withReplacement ? pick(children, select, true, random) : children.filter((c) => drawn.has(c));
  }
  if (section.shuffle) {
    const loose = shuffled(
      children.filter((c) => !c.fixed),
      random,
    );
    children = children.map((c) => (c.fixed ? c : loose.shift()!));
  }
  return children.flatMap((child): Delivered[] => {
    if (child.kind === 'section') return fromSection(child, inside, random);
    if (child.item === null) return [];
    return [
      {
        ref: child.id,
        item: child.item,
        weights: Object.fromEntries(child.weights.map((w) => [w.id, w.value])),
        categories: child.categories,
        sections: inside.map((s) => s.id),
        within: inside,
        pointsEach: null,
        node: child,
      },
    ];
  });
}
