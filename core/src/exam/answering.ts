import type { Chance } from '../assemble/chance.ts';
import type { Delivered } from '../assemble/deliver.ts';
import { answersOf, type AnswerPair } from '../compare/answers.ts';
import { fileContents } from '../compare/side.ts';
import type { Holding, Item, Quiz } from '../model/holding.ts';
import { near } from '../model/number.ts';
import { quizItems } from '../model/quizzes.ts';
import { evaluate } from '../scoring/evaluate.ts';
import { seeded } from '../scoring/random.ts';
import { seedOf } from '../scoring/seedOf.ts';

/** How candidates answer on both sides of a quiz that was moved. */

/** A quiz with the holding it stands in. */
export interface QuizSide {
  readonly holding: Holding;
  readonly quiz: Quiz;
}

/** Ability and difficulty are spread alike (a standard normal distribution, common practice). */
export const SPREAD = 1;

/**
 * The chance of a right answer in the Rasch model: 1 / (1 + exp(difficulty - ability)), both in logits (Rasch 1960,
 * "Probabilistic models for some intelligence and attainment tests").
 */
export const raschChance = (ability: number, difficulty: number): number =>
  1 / (1 + Math.exp(difficulty - ability));

/** A number of the standard normal distribution from two of the uniform one (Box and Muller 1958). */
export const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** Answers to one item on both sides: those that are right in the source, and the rest. */
export interface Answering {
  readonly arrived: string | null;
  readonly right: readonly AnswerPair[];
  readonly wrong: readonly AnswerPair[];
  readonly difficulty: number;
}

/** The answers to every item of a quiz, on both sides, and how hard each is. */
export function answeringOf(
  source: QuizSide,
  arrived: QuizSide,
  partners: ReadonlyMap<string, string>,
  left: ReadonlyMap<string, Item>,
  right: ReadonlyMap<string, Item>,
  seed: string,
): Map<string, Answering> {
  const files = [fileContents(source.holding), fileContents(arrived.holding)] as const;
  const out = new Map<string, Answering>();
  for (const id of new Set(quizItems(source.quiz))) {
    const item = left.get(id);
    if (!item) continue;
    const partner = partners.get(id);
    const other = (partner === undefined ? undefined : right.get(partner)) ?? item;
    const { pairs, source: scored } = answersOf({ item, files: files[0] }, { item: other, files: files[1] });
    const most = scored.recognised.best.raw;
    const isRight = ({ left: answers }: AnswerPair): boolean =>
      most > 0 && near(evaluate(scored.item, answers).raw, most);
    out.set(id, {
      arrived: partner ?? null,
      right: pairs.filter(isRight),
      wrong: pairs.filter((p) => !isRight(p)),
      difficulty: SPREAD * normal(seeded(seedOf(`${seed}/difficulty/${id}`))),
    });
  }
  return out;
}

/** What a candidate of some ability answers; null where there is nothing to answer. */
export function chosen(
  { right, wrong, difficulty }: Answering,
  ability: number,
  random: () => number,
): AnswerPair | null {
  const knows = right.length > 0 && random() < raschChance(ability, difficulty);
  const from = knows || wrong.length === 0 ? right : wrong;
  return from[Math.floor(random() * from.length)] ?? null;
}

/** Chance that draws, on the other side, what was drawn on this one, as far as it is there. */
export function following(set: readonly Delivered[], partners: ReadonlyMap<string, string>): Chance {
  const wanted = new Set(set.map((d) => partners.get(d.item)));
  return {
    pick: (_, pool, count) => {
      const here = pool.filter((p) => wanted.has(nameOf(p)));
      // What did not arrive leaves room for others.
      const rest = here.length < count ? pool.filter((p) => !wanted.has(nameOf(p))) : [];
      return [...here, ...rest].slice(0, count);
    },
    order: (_, list) => list,
  };
}

/** What a draw chooses from goes by the item it sets: references of tests have names of their own. */
const nameOf = (one: { readonly id: string; readonly item?: string | null }): string =>
  'item' in one && typeof one.item === 'string' ? one.item : one.id;
