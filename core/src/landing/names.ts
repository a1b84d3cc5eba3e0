import { foldName } from '../model/foldName.ts';

/**
 * A name that is never empty and that nothing else has: the title, else the first of the fallbacks that says
 * something, else the kind; numbered where it is taken. `taken` holds folded names and grows by the result.
 */
export function proposeName(
  title: string,
  fallbacks: readonly (string | null)[],
  kind: string,
  taken: Set<string>,
): string {
  const base = [title, ...fallbacks].map((n) => (n ?? '').trim()).find((n) => foldName(n) !== '') ?? kind;
  let name = base;
  for (let n = 2; taken.has(foldName(name)); n++) name = `${base} (${n})`;
  taken.add(foldName(name));
  return name;
}
