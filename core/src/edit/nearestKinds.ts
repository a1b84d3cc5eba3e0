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
