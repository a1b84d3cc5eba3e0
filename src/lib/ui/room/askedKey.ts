import {
  interactionsOf,
  optionSets,
  optionText,
  own,
  recognise,
  responseIdsOf,
  type Edit,
} from '@alforja/core';
import type { WholeItem } from '$lib/shared/edits';
import { typedNumber } from '../format';

/** One answer of an item of which nothing says what is right. */
export interface AskedAnswer {
  readonly node: string;
  readonly response: string;
  /** The choices it is one of, or several; null where it is typed. */
  readonly choices: readonly { readonly id: string; readonly says: string }[] | null;
  readonly several: boolean;
  readonly number: boolean;
}

/** Kinds whose right answer is one of a list. */
const LISTED: ReadonlySet<string> = new Set(['choice', 'inlineChoice', 'hottext', 'hotspot']);

/**
 * What to ask of an item without a key.
 * @param only the response a finding names, else the first of which nothing is right
 * @returns null for answers that take more than a line to say: those are changed where they stand
 */
export function askedAnswer({ item }: WholeItem, only: string | null): AskedAnswer | null {
  const { key } = recognise(item);
  for (const interaction of interactionsOf(item)) {
    const [response] = responseIdsOf(interaction);
    const declared = item.responses.find((r) => r.id === response);
    if (response === undefined || !declared || (only !== null && response !== only)) continue;
    if (only === null && (own(key, response) ?? []).length > 0) continue;
    const asked = { node: item.id, response, several: declared.cardinality === 'multiple' };
    if (LISTED.has(interaction.kind)) {
      const [options = []] = optionSets(interaction);
      const choices = options.map((o) => ({ id: o.id, says: optionText(o) || o.id }));
      return { ...asked, choices, number: false };
    }
    if (interaction.kind === 'textEntry')
      return { ...asked, choices: null, number: declared.baseType !== 'string' };
  }
  return null;
}

/** The edit that says what is right; null where nothing is said yet. */
export function keyEdit(asked: AskedAnswer, ticked: readonly string[], typed: string): Edit | null {
  const { node, response, choices } = asked;
  if (choices !== null)
    return ticked.length === 0
      ? null
      : { op: 'key', node, response, to: choices.map((c) => c.id).filter((id) => ticked.includes(id)) };
  if (asked.number) {
    const n = typedNumber(typed);
    return n === null ? null : { op: 'key', node, response, to: [n] };
  }
  const texts = typed
    .split('|')
    .map((t) => t.trim())
    .filter((t) => t !== '');
  return texts.length === 0 ? null : { op: 'accept', node, response, to: texts.map((text) => ({ text })) };
}
