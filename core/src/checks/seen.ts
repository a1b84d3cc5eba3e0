import { textOf } from '../families/shape.ts';
import { askedBy, type Asked } from '../match/asked.ts';
import type { Item } from '../model/holding.ts';
import { ownText } from '../model/ownText.ts';
import { choiceShuffles } from '../model/quizzes.ts';

/** What is asked of each item when all of them are looked at. */
interface Facts {
  readonly asked: Asked;
  /** What families are told by. */
  readonly text: string;
  readonly shuffles: readonly boolean[];
}

const factsOf = (item: Item): Facts => ({
  asked: askedBy(item),
  text: ownText(textOf(item)),
  shuffles: choiceShuffles(item),
});

/** What was found of items while each was at hand, so that none has to be looked into again. */
export class SeenItems {
  readonly #facts = new WeakMap<Item, Facts>();

  readonly see = (item: Item): void => void this.#facts.set(item, factsOf(item));

  /** Says that another stands for an item that was seen. */
  same(item: Item, other: Item): void {
    const facts = this.#facts.get(item);
    if (facts) this.#facts.set(other, facts);
  }

  readonly asked = (item: Item): Asked => this.#facts.get(item)?.asked ?? askedBy(item);
  readonly text = (item: Item): string => this.#facts.get(item)?.text ?? textOf(item);
  readonly shuffles = (item: Item): readonly boolean[] =>
    this.#facts.get(item)?.shuffles ?? choiceShuffles(item);
}
