import { finding, type Finding } from '../model/finding.ts';
import { letterOf } from '../model/letterOf.ts';
import type { Holding, Item, Quiz, Section } from '../model/holding.ts';
import { near, plainNumber, tidyNumber } from '../model/number.ts';
import { itemWeights } from '../model/places.ts';
import { quizItems, quizPoints } from '../model/quizzes.ts';
import { flatSections, type TestStructure } from '../model/testStructure.ts';
import { concrete } from '../scoring/concrete.ts';
import { seeded } from '../scoring/random.ts';
import { seedOf } from '../scoring/seedOf.ts';
import { keepingApart, leastInPlace, nothingYet, type Had } from './apart.ts';
import type { Chance } from './chance.ts';
import { chosenSections, chosenTest } from './deliver.ts';
import { choiceOrder, withSettledChoices } from './shuffleChoices.ts';
import { sharing, type Sharing } from './sharing.ts';
import { worthOf } from './worthOf.ts';

/** One version of a quiz: nothing of it is left to chance any more. */
export interface Version {
  /** A, B … Z, AA, AB … */
  readonly name: string;
  /** From which everything of it follows, together with the versions before it. */
  readonly seed: string;
  readonly points: number;
  readonly quiz: Quiz;
  /** In the order in which they are set, with their choices in the order in which they stand. */
  readonly items: readonly Item[];
}

export interface Versions {
  readonly versions: readonly Version[];
  /** What each shares with the next, and the last with the first; none where there is only one. */
  readonly sharing: readonly Sharing[];
  readonly findings: readonly Finding[];
}

/** More versions than seats beside one another nobody needs. */
export const MAX_VERSIONS = 100;

/**
 * Versions of a quiz: draws made, items and choices in a settled order as far as the quiz shuffles them, every drawn
 * item worth what the draw says, parameters filled in. The same seed gives the same versions. Neighbours in the row
 * A, B, C … (and the last beside the first) share as little as the draws allow: by construction what is drawn, by a
 * bounded search where it stands.
 */
export function versionsOf(
  { items, quizzes }: Pick<Holding, 'items' | 'quizzes'>,
  quiz: Quiz,
  count: number,
  seed: string,
): Versions {
  const byId = new Map(items.map((i) => [i.id, i]));
  const weights = itemWeights(quizzes);
  const worth = worthIn(quiz, byId, weights);
  const had: Had[] = [];
  const versions = Array.from({ length: Math.min(count, MAX_VERSIONS) }, (_, at): Version => {
    const name = letterOf(at);
    const own = `${seed}/${name}`;
    const into = nothingYet();
    const last = at === count - 1 && at > 1;
    const neighbours = [had[at - 1], last ? had[0] : undefined].filter((h) => h !== undefined);
    const chance = keepingApart(seedOf(own), { neighbours, all: had }, into);
    had.push(into);
    const settled = settledQuiz(quiz, chance, name);
    const random = seeded(seedOf(`${own}/choices`));
    const made = [...new Set(quizItems(settled))].flatMap((id): Item[] => {
      const given = byId.get(id);
      if (!given) return [];
      const fixed = concrete(given, seedOf(`${own}/${id}`));
      const item = withSettledChoices(fixed, (place, loose) => {
        const beside = neighbours.map((n) => n.orders.get(place) ?? []);
        const order = leastInPlace(loose, beside, random);
        into.orders.set(
          place,
          order.map((c) => c.id),
        );
        return order;
      });
      return [worthOf(item, worth.get(id) ?? item.points)];
    });
    const points = pointsOf(settled, made);
    return { name, seed: own, points, quiz: settled, items: made };
  });
  return {
    versions,
    sharing: sharing(quiz, byId, versions),
    findings: unequal(quiz, versions, quizPoints(quiz, byId, weights)),
  };
}

/** Items that give no points leave versions that draw them worth less than the quiz says. */
function unequal(quiz: Quiz, versions: readonly Version[], points: number): Finding[] {
  if (versions.every((v) => near(v.points, points))) return [];
  const said = versions.map((v) => `${v.name} ${plainNumber(v.points)}`).join(', ');
  return [finding('versions-unequal', 'warning', { node: quiz.id }, { said, points })];
}

/** An item that is drawn twice counts twice. */
function pointsOf(quiz: Quiz, items: readonly Item[]): number {
  const worth = new Map(items.map((i) => [i.id, i.points]));
  return tidyNumber(quizItems(quiz).reduce((sum, id) => sum + (worth.get(id) ?? 0), 0));
}

/** What each item is worth in a quiz: drawn ones what their draw says. */
function worthIn(
  quiz: Quiz,
  items: ReadonlyMap<string, Item>,
  weights: ReadonlyMap<string, number>,
): Map<string, number> {
  const worth = new Map<string, number>();
  for (const { items: refs, draw } of quiz.sections) {
    for (const { item, weight } of refs)
      if (!worth.has(item))
        worth.set(item, ((items.get(item)?.points ?? 0) * weight) / (weights.get(item) || 1));
    for (const id of draw?.pool ?? []) worth.set(id, draw!.pointsEach);
  }
  return worth;
}

/** A quiz in which nothing is drawn or shuffled any more. */
function settledQuiz(quiz: Quiz, chance: Chance, name: string): Quiz {
  const settings = {
    ...quiz.settings,
    shuffleItems: quiz.settings.shuffleItems === null ? null : false,
    shuffleChoices: quiz.settings.shuffleChoices === null ? null : false,
  };
  const called = { id: `${quiz.id}-${name}`, title: `${quiz.title} ${name}`.trim() };
  if (quiz.test) {
    const test = chosenTest(quiz.test, chance);
    return { ...quiz, ...called, settings, test, sections: sectionsOf(quiz, test) };
  }
  const chosen = chosenSections(quiz, chance);
  const sections = quiz.sections.map((section, at): Section => ({
    ...section,
    shuffle: false,
    draw: null,
    items: chosen[at]!.map(({ id, weight }) => ({ item: id, weight })),
  }));
  return { ...quiz, ...called, settings, sections };
}

/** The sections of a settled test, as the quiz had them. */
function sectionsOf(quiz: Quiz, test: TestStructure): Section[] {
  const before = new Map(quiz.sections.map((s) => [s.id, s]));
  return flatSections(test).map((node): Section => {
    const had = before.get(node.id);
    const weights = new Map(had?.items.map((r) => [r.item, r.weight]) ?? []);
    return {
      id: node.id,
      title: had?.title ?? node.title,
      instructions: had?.instructions ?? null,
      shuffle: false,
      draw: null,
      items: node.children.flatMap((c) =>
        c.kind === 'item' && c.item !== null
          ? [{ item: c.item, weight: weights.get(c.item) ?? c.weights[0]?.value ?? 1 }]
          : [],
      ),
    };
  });
}

/** A version as a holding of its own, with the files and rubrics that its items need. */
export function versionHolding(holding: Holding, { quiz, items }: Version): Holding {
  const ids = new Set([...items.map((i) => i.id), quiz.id]);
  const needs = new Set(items.flatMap((i) => i.files.map((f) => f.path)));
  return {
    ...holding,
    title: quiz.title,
    quizzes: [quiz],
    banks: [],
    items,
    rubrics: holding.rubrics
      .filter((r) => r.attachedTo.some((id) => ids.has(id)))
      .map((r) => ({ ...r, attachedTo: r.attachedTo.filter((id) => ids.has(id)) })),
    links: [],
    files: holding.files.filter((f) => needs.has(f.path)),
    outline: [],
    findings: [],
  };
}

/** Which item stands where, with its choices, in each version. */
export const versionTable = ({ quiz, items }: Version): { id: string; choices: string[] }[] => {
  const byId = new Map(items.map((i) => [i.id, i]));
  return quizItems(quiz).flatMap((id) => {
    const item = byId.get(id);
    return item ? [{ id, choices: choiceOrder(item) }] : [];
  });
};
