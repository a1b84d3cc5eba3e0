/** Questions of the invented textbook, before they stand in any file. */

interface Asked {
  readonly stem: string;
  readonly points: number;
  readonly topic: string;
  /** An explanation that stands with the key. */
  readonly why: string;
  /** A picture below the question. */
  readonly picture: 'harbour' | 'transit' | null;
  /** A fraction that is shown as a formula: above and below the line, and what it is equal to. */
  readonly formula: readonly [string, string, string] | null;
}
export type BookQuestion = Asked &
  (
    | { readonly kind: 'choice'; readonly choices: readonly string[]; readonly right: readonly number[] }
    | { readonly kind: 'truth'; readonly right: boolean }
    | { readonly kind: 'word'; readonly answers: readonly string[] }
    | { readonly kind: 'number'; readonly value: number; readonly within: number; readonly unit: string }
    | { readonly kind: 'essay'; readonly model: string }
  );

export interface Chapter {
  readonly number: number;
  readonly title: string;
  readonly questions: readonly BookQuestion[];
}

type Over = Partial<Asked>;
const asked = (stem: string, over: Over): Asked => ({
  stem,
  points: 1,
  topic: '',
  why: '',
  picture: null,
  formula: null,
  ...over,
});

/** Where the right choice stands: somewhere, and always in the same place. */
const placeFor = (stem: string, of: number): number =>
  [...stem].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 9973, 7) % of;

export function one(stem: string, right: string, wrong: readonly string[], over: Over = {}): BookQuestion {
  const at = placeFor(stem, wrong.length + 1);
  const choices = [...wrong.slice(0, at), right, ...wrong.slice(at)];
  return { ...asked(stem, over), kind: 'choice', choices, right: [at] };
}
/** @param right which of the choices are right, from 0 */
export const some = (
  stem: string,
  choices: readonly string[],
  right: readonly number[],
  over: Over = {},
): BookQuestion => ({ ...asked(stem, { points: 2, ...over }), kind: 'choice', choices, right });
export const truth = (stem: string, right: boolean, over: Over = {}): BookQuestion => ({
  ...asked(stem, over),
  kind: 'truth',
  right,
});
export const word = (stem: string, answers: readonly string[], over: Over = {}): BookQuestion => ({
  ...asked(stem, over),
  kind: 'word',
  answers,
});
export const num = (
  stem: string,
  value: number,
  within: number,
  unit: string,
  over: Over = {},
): BookQuestion => ({ ...asked(stem, { points: 2, ...over }), kind: 'number', value, within, unit });
export const essay = (stem: string, model: string, over: Over = {}): BookQuestion => ({
  ...asked(stem, { points: 5, ...over }),
  kind: 'essay',
  model,
});
