import { keyTexts, recognise, stemText, choicesOf, optionText, type Holding, type Item } from '@alforja/core';
import type { Truth, Words } from './truth.ts';

/** How much of a document was read right: items, keys and points, and keys that are wrong and not marked as unsure. */
export interface Judged {
  items: number;
  itemsRight: number;
  keysRight: number;
  pointsRight: number;
  /** What is wrong and says nothing of it. */
  readonly wrong: string[];
  readonly amiss: string[];
}

const fold = (text: string): string => text.replace(/\s+/gu, ' ').replace(/_{2,}/gu, '').trim();

/** Items that were read against those that are there, in their order. */
export function judge(holding: Holding, truths: readonly Truth[], words: Words): Judged {
  const out: Judged = {
    items: truths.length,
    itemsRight: 0,
    keysRight: 0,
    pointsRight: 0,
    wrong: [],
    amiss: [],
  };
  const byStem = new Map<string, Item[]>();
  for (const item of holding.items) {
    const key = fold(stemText(item)).replace(/ /gu, '');
    byStem.set(key, [...(byStem.get(key) ?? []), item]);
  }
  for (const truth of truths) {
    const item = byStem.get(fold(truth.stem).replace(/ /gu, ''))?.shift();
    if (!item || !sameChoices(item, truth)) {
      out.amiss.push(`item: ${truth.stem}`);
      if (!item) continue;
    } else out.itemsRight += 1;
    const key = truth.kind === 'choice' ? placesOf(item) : keyTexts(item, recognise(item));
    const wanted = keyOf(truth, words);
    const right =
      key.length === wanted.length &&
      key.every((k, at) => fold(k).toLowerCase() === fold(wanted[at]!).toLowerCase());
    if (right) out.keysRight += 1;
    else {
      out.amiss.push(`key: ${truth.stem}: ${key.join('; ')} for ${wanted.join('; ')}`);
      const unsure = holding.findings.some(
        (f) =>
          (f.code === 'key-unsure' || f.code === 'key-missing' || f.code === 'blank-unanswered') &&
          f.where.node === item.id,
      );
      if (!unsure) out.wrong.push(`${truth.stem}: ${key.join('; ')} for ${wanted.join('; ')}`);
    }
    if (item.points === (truth.points ?? 1)) out.pointsRight += 1;
    else out.amiss.push(`points: ${truth.stem}: ${item.points}`);
  }
  const extra = holding.items.length - truths.length;
  if (extra > 0) out.amiss.push(`${extra} items more`);
  return out;
}

function sameChoices(item: Item, truth: Truth): boolean {
  if (truth.kind !== 'choice') return true;
  const read = choicesOf(item).map((c) => fold(optionText(c)));
  return read.length === truth.choices.length && read.every((c, at) => c === fold(truth.choices[at]!));
}

/** Places of the right choices: their words may have been misread. */
function placesOf(item: Item): string[] {
  const right = Object.values(recognise(item).key).flat().map(String);
  return choicesOf(item).flatMap((c, at) => (right.includes(c.id) ? [String(at)] : []));
}

function keyOf(truth: Truth, words: Words): string[] {
  switch (truth.kind) {
    case 'choice':
      return truth.right.map(String);
    case 'truth':
      return [truth.right ? words.true : words.false];
    case 'text':
      return [...truth.right];
    case 'number':
      return [String(truth.right)];
    case 'essay':
      return [];
  }
}
