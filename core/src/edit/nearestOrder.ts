import type { OrderInteraction } from '../model/content.ts';
import { element, text } from '../model/make.ts';
import { own } from '../model/own.ts';
import { recognise, shapeIn } from '../scoring/recognise.ts';
import { seeded, shuffled } from '../scoring/random.ts';
import type { Item } from '../model/holding.ts';
import { isRefused } from './refusal.ts';
import { retyped, withKey, withPart } from './keys.ts';
import { rescore } from './rescore.ts';
import type { Instead } from './nearestKinds.ts';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
/** How people write a row of letters. */
const WAYS = ['', ' ', ', ', ',', '-'];

/**
 * Things to be put in order, as a list with letters and the letters typed in order. Only where the whole order is
 * right or wrong: what stands in its place in part cannot be read from a text.
 */
export function typedOrderOf(item: Item, node: OrderInteraction): Instead | null {
  const { responseId } = node;
  const recognised = recognise(item);
  const part = shapeIn(recognised.shape, responseId);
  const right = (own(recognised.key, responseId) ?? []).map(String);
  if (part?.kind !== 'all-or-nothing' || right.length < 2 || node.choices.length > LETTERS.length)
    return null;
  const shown = arranged(node, right);
  const letterOf = new Map(shown.map((c, at) => [c.id, LETTERS[at]!]));
  const spell = (ids: readonly unknown[], between = ''): string =>
    ids.map((id) => letterOf.get(String(id)) ?? '?').join(between);
  const texts = WAYS.map((between) => spell(right, between));
  // Any order will do as an example but the right one.
  const example = spell([...right.slice(1), right[0]]);
  return {
    here: [
      ...node.prompt,
      ...shown.map((c, at) => element('div', [text(`${LETTERS[at]}. `), ...c.content])),
      element('p', [
        text(`In order, like ${example}: `),
        { kind: 'textEntry', responseId, expectedLength: texts[0]!.length, placeholder: null },
      ]),
    ],
    after: [],
    scored: (asked, before) => {
      const answers = texts.map((t) => ({ text: t, points: part.points, caseSensitive: false }));
      const shape = withPart(item, recognised.shape, responseId, { kind: 'accepted-answers', answers });
      const typed = retyped(asked, responseId, { cardinality: 'single', baseType: 'string' });
      const made = rescore(typed, shape, withKey(recognised.key, responseId, texts), { before });
      return isRefused(made) ? null : made;
    },
    forward: (values) => (values.length === 0 ? [] : [spell(values)]),
  };
}

/** Things in the order in which they are read: never the right one, where it is shuffled for students. */
function arranged(
  { choices, shuffle }: OrderInteraction,
  right: readonly string[],
): OrderInteraction['choices'] {
  if (!shuffle) return choices;
  const mixed = shuffled(choices, seeded(1));
  const inOrder = mixed.filter((c) => right.includes(c.id)).every((c, at) => c.id === right[at]);
  return inOrder ? [...mixed.slice(1), mixed[0]!] : mixed;
}
