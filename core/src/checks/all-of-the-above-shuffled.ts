import { cut } from '../model/cut.ts';
import { interactionsOf } from '../model/visit.ts';
import { plain } from '../model/plainText.ts';
import type { Check } from './check.ts';

/** Wordings that only make sense below the choices they speak of (common practice). */
const BY_PLACE = [
  /\b(?:all|none|any|some|both|neither|each|either)\s+of\s+(?:the|these)\s+(?:above|below|preceding|following|previous)\b/iu,
  /^(?:all|none|both|neither)\s+(?:the\s+)?(?:above|below)\.?$/iu,
  /^(?:all|none|both|neither)\s+of\s+(?:these|them|the\s+(?:others?|options|choices|answers))\.?$/iu,
];

/** Wordings that call other choices by their letters. */
const BY_LETTER = [
  /\b(?:both|neither|either)\s+\(?[a-h]\)?\s+(?:and|nor|or|&)\s+\(?[a-h]\)?(?=$|[\s.,;)])/iu,
  // Nothing but letters: "A and C", "B, C and D only".
  /^(?:only\s+|all of\s+)?\(?[A-H]\)?(?:\s*(?:,|and|or|&|\+)\s*(?:and\s+)?\(?[A-H]\)?)+(?:\s+(?:only|above|are (?:correct|right|true)))?\.?$/u,
  /\b(?:[Oo]ptions?|[Cc]hoices?|[Aa]nswers?)\s+\(?[A-H]\)?(?=$|[\s.,;)])/u,
];

export const namesLetters = (text: string): boolean => BY_LETTER.some((pattern) => pattern.test(text));
/** Whether a choice makes sense only among others that keep their order. */
export const speaksOfOthers = (text: string): boolean =>
  namesLetters(text) || BY_PLACE.some((pattern) => pattern.test(text));

/** "All of the above", or a reference to letters, in a choice that moves when choices shuffle. */
export const allOfTheAboveShuffled: Check<'all-of-the-above-shuffled'> = {
  code: 'all-of-the-above-shuffled',
  severity: 'warning',
  item: (item) =>
    interactionsOf(item).flatMap((interaction) => {
      if (interaction.kind !== 'choice' || !interaction.shuffle) return [];
      return interaction.choices
        .filter((c) => !c.fixed)
        .map((c) => plain(c.content))
        .filter(speaksOfOthers)
        .map((text) => ({ text: cut(text, 80) }));
    }),
};
