import type { Edit } from '../edit/schema.ts';
import type { Situation } from './repairer.ts';

/** A file's name as a title: signs between words become blanks. */
export function spelledOut(name: string): string {
  const words = name
    .replace(/\.[a-z0-9]{2,5}$/iu, '')
    .replace(/[_\-+.]+/gu, ' ')
    .replace(/\s+/gu, ' ')
    .trim();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** The category that all of some items share. */
export function sharedCategory({ items }: Situation, ids: readonly string[]): string | null {
  const categories = new Set(ids.map((id) => items.get(id)?.category ?? null));
  return categories.size === 1 ? [...categories][0]! : null;
}

export const titled = (node: string, kind: 'quiz' | 'bank', to: string): Edit => ({
  op: 'title',
  node,
  kind,
  to,
});
