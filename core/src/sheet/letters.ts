import { letterOf } from '../model/letterOf.ts';
import type { Item } from '../model/holding.ts';
import { optionSets, responseIdsOf, type Option } from '../model/options.ts';
import { optionText } from '../model/plainText.ts';
import type { ResponseDeclaration } from '../model/scoring.ts';
import { interactionsOf } from '../model/visit.ts';

export interface Picking {
  readonly response: ResponseDeclaration;
  readonly options: readonly Option[];
  readonly shuffle: boolean | null;
}

/** The one response of an item, where it is answered by picking from one list. */
export function pickingOf(item: Item): Picking | null {
  const interactions = interactionsOf(item);
  const [only] = interactions;
  if (interactions.length !== 1 || !only) return null;
  const sets = optionSets(only);
  const response = item.responses.find((r) => responseIdsOf(only).includes(r.id));
  return sets.length === 1 && response && only.kind !== 'associate' && only.kind !== 'graphicAssociate'
    ? { response, options: sets[0]!, shuffle: 'shuffle' in only ? only.shuffle : null }
    : null;
}

/** Choices by their ids, as letters. */
export const lettersOf = ({ options }: Picking, ids: readonly string[], ordered: boolean): string => {
  const at = ids.map((id) => options.findIndex((o) => o.id === id)).filter((n) => n >= 0);
  return (ordered ? at : at.sort((a, b) => a - b)).map(letterOf).join(', ');
};

/**
 * The ids that a text names: letters with commas or blanks between, ids, or what a choice says.
 * @returns null where it names anything else
 */
export function idsNamed({ options }: Picking, text: string): readonly string[] | null {
  const whole = text.trim();
  if (whole === '') return [];
  const find = (word: string): string | undefined =>
    options.find((_, at) => letterOf(at) === word.toUpperCase())?.id ??
    options.find((o) => o.id === word)?.id ??
    options.find((o) => optionText(o).toLowerCase() === word.toLowerCase())?.id;
  const one = find(whole);
  if (one !== undefined) return [one];
  for (const between of [/[|;]/u, /[\s,;+&]+/u]) {
    const words = whole.split(between).map((w) => w.trim());
    const ids = words.filter((w) => w !== '').map(find);
    if (ids.length > 0 && ids.every((id) => id !== undefined)) return ids;
  }
  return null;
}
