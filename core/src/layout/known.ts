import { z } from 'zod';
import { foldField } from './fields.ts';
import { Layout } from './layout.ts';

/** Layouts that somebody has confirmed, remembered by what the documents look like that they are of. */

export const KnownLayout = z.object({
  name: z.string().trim().min(1).max(200),
  /** What such a document looks like when nothing is known of it (`looksOf`). */
  looks: z.array(z.string().max(300)).max(500),
  layout: Layout,
});
export type KnownLayout = z.infer<typeof KnownLayout>;

/** What a document looks like: the labels that recur in it, as it is read when nothing is known. */
export const looksOf = ({
  question,
  choice,
  labels,
}: Pick<Layout, 'question' | 'choice' | 'labels'>): string[] => [
  `question ${question}`,
  `choice ${choice}`,
  ...Object.keys(labels)
    .map((name) => `line ${foldField(name)}`)
    .sort(),
];

/** Lines that only some documents of a series have do not make it another one. */
const ALIKE = 0.5;

/** How much two looks have in common, 0 to 1; 0 where questions or choices are labelled otherwise. */
function likeLooks(a: readonly string[], b: readonly string[]): number {
  if (a[0] !== b[0] || a[1] !== b[1]) return 0;
  const [x, y] = [new Set(a), new Set(b)];
  const shared = [...x].filter((l) => y.has(l)).length;
  return shared / new Set([...x, ...y]).size;
}

/** The layout that is remembered for documents which look like this; null where none is. */
export function knownFor(looks: readonly string[], known: readonly KnownLayout[]): KnownLayout | null {
  let best: { known: KnownLayout; likeness: number } | null = null;
  for (const one of known) {
    const likeness = likeLooks(looks, one.looks);
    if (likeness >= ALIKE && likeness > (best?.likeness ?? 0)) best = { known: one, likeness };
  }
  return best?.known ?? null;
}
