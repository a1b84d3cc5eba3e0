import { inOwnDraw } from '../model/quizzes.ts';
import type { Quiz, Section } from '../model/holding.ts';
import type { TestItemRef, TestPart, TestSection, TestStructure } from '../model/testStructure.ts';
import { seededChance, type Chance } from './chance.ts';

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
export const deliver = (quiz: Quiz, seed: number): Delivered[] => deliverBy(quiz, seededChance(seed));

/** What one candidate is set where chance is told what to do. */
export const deliverBy = (quiz: Quiz, chance: Chance): Delivered[] =>
  quiz.test ? delivered(chosenTest(quiz.test, chance)) : fromSections(quiz, chance);

/** An item of a section as one candidate gets it; `pointsEach` where it was drawn. */
export interface Chosen {
  readonly id: string;
  readonly weight: number;
  readonly pointsEach: number | null;
}

/** A section before anything is left to chance: what everybody is set, and what is drawn from. */
interface Prepared {
  readonly place: string;
  readonly section: Section;
  readonly fixed: readonly Chosen[];
  readonly pool: readonly Chosen[];
}

/** Quizzes never change, and are delivered by the thousand. */
const known = new WeakMap<Quiz, readonly Prepared[]>();

function preparedSections(quiz: Quiz): readonly Prepared[] {
  const before = known.get(quiz);
  if (before) return before;
  const made = quiz.sections.map((section, at): Prepared => {
    const { draw } = section;
    return {
      place: placeOf(section, at),
      section,
      fixed: section.items
        .filter((r) => !inOwnDraw(section, r.item))
        .map((r) => ({ id: r.item, weight: r.weight, pointsEach: null })),
      pool: (draw?.pool ?? []).map((id) => ({ id, weight: 1, pointsEach: draw!.pointsEach })),
    };
  });
  known.set(quiz, made);
  return made;
}

/** The items of each section of a quiz that is no test, as chance has them. */
export function chosenSections(quiz: Quiz, chance: Chance): readonly (readonly Chosen[])[] {
  return preparedSections(quiz).map(({ place, section: { draw, shuffle }, fixed, pool }) => {
    const drawn = draw ? chance.pick(place, pool, draw.pick, draw.withReplacement) : [];
    const all = [...fixed, ...drawn];
    return shuffle ? chance.order(place, all) : all;
  });
}

const placeOf = (section: Section, at: number): string => `${at} ${section.id}`;

const fromSections = (quiz: Quiz, chance: Chance): Delivered[] =>
  chosenSections(quiz, chance).flatMap((chosen, at) =>
    chosen.map(({ id, weight, pointsEach }): Delivered => ({
      ref: id,
      item: id,
      weights: { WEIGHT: weight },
      categories: [],
      sections: [quiz.sections[at]!.id],
      pointsEach,
      within: [],
      node: null,
    })),
  );

/** A test in which nothing is left to chance: what is drawn and in which order is settled. */
export const chosenTest = (test: TestStructure, chance: Chance): TestStructure => ({
  ...test,
  parts: test.parts.map((part, at) => ({
    ...part,
    sections: part.sections.map((s, n) => chosenSection(s, chance, `${at} ${n}`)),
  })),
});

/**
 * Required children are always set; the rest of a selection is drawn. Fixed ones keep their place when the
 * others shuffle.
 */
function chosenSection(section: TestSection, chance: Chance, place: string): TestSection {
  let children: readonly (TestSection | TestItemRef)[] = section.children;
  if (section.selection) {
    const { select, withReplacement } = section.selection;
    const required = children.filter((c) => c.required);
    const rest = children.filter((c) => !c.required);
    const drawn = new Set([
      ...required,
      ...chance.pick(place, rest, Math.max(0, select - required.length), false),
    ]);
    children = withReplacement
      ? chance.pick(place, children, select, true)
      : children.filter((c) => drawn.has(c));
  }
  if (section.shuffle) {
    const loose = [
      ...chance.order(
        place,
        children.filter((c) => !c.fixed),
      ),
    ];
    children = children.map((c) => (c.fixed ? c : loose.shift()!));
  }
  return {
    ...section,
    selection: null,
    shuffle: false,
    children: children.map((c, at) =>
      c.kind === 'section' ? chosenSection(c, chance, `${place} ${at} ${c.id}`) : c,
    ),
  };
}

const delivered = (test: TestStructure): Delivered[] =>
  test.parts.flatMap((part) => part.sections.flatMap((s) => inSection(s, [part])));

function inSection(section: TestSection, outer: readonly (TestPart | TestSection)[]): Delivered[] {
  const inside = [...outer, section];
  return section.children.flatMap((child): Delivered[] => {
    if (child.kind === 'section') return inSection(child, inside);
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
