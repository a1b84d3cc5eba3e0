/** What somebody has said of single blocks of a document, before anything of it is understood. */

/**
 * `question`: a question begins here. Of the question above: `text`, a `choice`, its `key`, its `feedback`, or `on`,
 * which goes on in the line before. `before`: belongs to the text of the question below. `heading`: the title of what
 * follows. `aside`: none of it.
 */
export const HAND_ROLES = [
  'question',
  'text',
  'on',
  'choice',
  'key',
  'feedback',
  'before',
  'heading',
  'aside',
] as const;
export type HandRole = (typeof HAND_ROLES)[number];

/** By the number of the block, from 1. */
export type ByHand = ReadonlyMap<number, HandRole>;
export const NOTHING_SAID: ByHand = new Map();
