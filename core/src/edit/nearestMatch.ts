import type { AssociateInteraction } from '../model/content.ts';
import { own } from '../model/own.ts';
import { recognise, shapeIn } from '../scoring/recognise.ts';
import type { ScoringShape } from '../scoring/shapes.ts';
import type { Item } from '../model/holding.ts';
import { isRefused } from './refusal.ts';
import { retyped, withKey, withPart } from './keys.ts';
import { rescore } from './rescore.ts';
import type { Instead } from './nearestKinds.ts';

/**
 * Things to be paired with one another, as a matching of two lists: of each right pair one stands on either side, and
 * what has no partner stands among the answers. Null where the right pairs cannot be parted so.
 */
export function matchOf(item: Item, node: AssociateInteraction): Instead | null {
  const { responseId } = node;
  const recognised = recognise(item);
  const part = shapeIn(recognised.shape, responseId);
  const right = (own(recognised.key, responseId) ?? []).map(String);
  if (part?.kind !== 'all-or-nothing' && part?.kind !== 'per-choice') return null;
  const asks = sides(right.map((pair) => pair.split(' ')));
  if (!asks) return null;
  /** The pair with the one that asks first; null where both stand on one side. */
  const directed = (pair: string): string | null => {
    const [a = '', b = ''] = pair.split(' ');
    if (asks.has(a) === asks.has(b)) return null;
    return asks.has(a) ? `${a} ${b}` : `${b} ${a}`;
  };
  return {
    here: [
      {
        kind: 'match',
        responseId,
        prompt: node.prompt,
        shuffle: node.shuffle,
        maxAssociations: node.maxAssociations,
        minAssociations: node.minAssociations,
        left: node.choices.filter((c) => asks.has(c.id)),
        right: node.choices.filter((c) => !asks.has(c.id)),
        rows: null,
      },
    ],
    after: [],
    scored: (asked, before) => {
      const typed = retyped(asked, responseId, { baseType: 'directedPair' });
      const shape = withPart(item, recognised.shape, responseId, turned(part, directed));
      const key = withKey(
        recognised.key,
        responseId,
        right.flatMap((pair) => directed(pair) ?? []),
      );
      const made = rescore(typed, shape, key, { before });
      return isRefused(made) ? null : made;
    },
    forward: (values) => {
      const made = values.map((v) => directed(String(v)));
      return made.includes(null) ? null : (made as string[]);
    },
  };
}

function turned(part: ScoringShape, directed: (pair: string) => string | null): ScoringShape {
  if (part.kind !== 'per-choice') return part;
  const values = Object.entries(part.values).flatMap(([pair, v]) => {
    const to = directed(pair);
    return to === null ? [] : [[to, v] as const];
  });
  return { ...part, values: Object.fromEntries(values) };
}

/** One of each pair, so that no pair has both; null where there is no such choice (a ring of three). */
function sides(pairs: readonly (readonly string[])[]): ReadonlySet<string> | null {
  if (pairs.length === 0) return null;
  const beside = new Map<string, string[]>();
  const add = (a: string, b: string): void => void beside.set(a, [...(beside.get(a) ?? []), b]);
  for (const [a = '', b = ''] of pairs) {
    add(a, b);
    add(b, a);
  }
  const side = new Map<string, boolean>();
  for (const start of beside.keys()) {
    if (side.has(start)) continue;
    side.set(start, true);
    const open = [start];
    for (let at = open.pop(); at !== undefined; at = open.pop())
      for (const next of beside.get(at)!) {
        if (side.get(next) === side.get(at)) return null;
        if (side.has(next)) continue;
        side.set(next, !side.get(at)!);
        open.push(next);
      }
  }
  return new Set([...side].flatMap(([id, asks]) => (asks ? [id] : [])));
}
