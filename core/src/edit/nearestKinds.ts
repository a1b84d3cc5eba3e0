import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import type { Answers } from '../scoring/evaluate.ts';

/**
 * The kind that asks the same in another way, for targets that lack the first. `text` asks nothing any more: what
 * only played or was pressed is shown instead. Points anywhere in a picture have none: naming the areas would give
 * the answer away.
 */
export const NEAREST = {
  inlineChoice: 'choice',
  hottext: 'choice',
  hotspot: 'choice',
  slider: 'textEntry',
  order: 'textEntry',
  graphicOrder: 'order',
  associate: 'match',
  graphicAssociate: 'associate',
  graphicGapMatch: 'gapMatch',
  upload: 'extendedText',
  drawing: 'extendedText',
  media: 'text',
  endAttempt: 'text',
} as const;
export type Replaceable = keyof typeof NEAREST;
export const isReplaceable = (kind: string): kind is Replaceable => Object.hasOwn(NEAREST, kind);

/** What stands in the place of an interaction, and what comes after everything else. */
export interface Instead {
  readonly here: readonly ContentNode[];
  readonly after: readonly ContentNode[];
  /** The item with the response declared and scored in the new kind, where its answers look otherwise. */
  readonly scored?: (item: Item, before: Item) => Item | null;
  /** How an answer of the old kind is given in the new one; null for one that has no counterpart and is not right. */
  readonly forward?: (values: Answers[string]) => Answers[string] | null;
}
