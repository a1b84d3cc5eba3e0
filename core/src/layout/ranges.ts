import { digitsValue } from '../document/counters.ts';

/** "for questions 5 to 7": two numbers, of which the first is the next question's; whatever the words are. */
export function rangeIn(text: string, number: number): { from: number; to: number } | null {
  if (number < 1 || text.length > 2000) return null;
  for (const found of text.matchAll(
    /(?<![\p{Nd}.,])(\p{Nd}{1,3})\s?(?:[–—-]|\p{L}{1,6}|～|〜)\s?(\p{Nd}{1,3})(?![\p{Nd}]|[.,]\p{Nd})/gu,
  )) {
    const [from, to] = [digitsValue(found[1]!), digitsValue(found[2]!)];
    if (from === number && to !== null && to > from && to <= from + 30) return { from, to };
  }
  return null;
}
