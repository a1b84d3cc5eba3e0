import type { DocumentContext } from '../formats/draft.ts';
import { cleanAddress, resolvePath } from '../intake/paths.ts';

const FILEBASE = /^(?:\$|%24)IMS[-_]CC[-_]FILEBASE(?:\$|%24)\/?/iu;

const MOST_ALIKE = 200;
const lastPart = (path: string): string => path.slice(path.lastIndexOf('/') + 1).toLowerCase();

/** Finds files of the package by the addresses met in content. */
export function fileFinder(paths: Iterable<string>): (document: string) => DocumentContext['file'] {
  const all = [...paths];
  const exact = new Set(all);
  const folded = new Map(all.map((p) => [p.toLowerCase(), p]));
  const byName = new Map<string, string[]>();
  for (const path of all) {
    const name = lastPart(path);
    const alike = byName.get(name);
    if (alike) alike.push(path);
    else byName.set(name, [path]);
  }
  const bySuffix = (suffix: string): string | null => {
    const wanted = `/${suffix.toLowerCase()}`;
    const alike = byName.get(lastPart(suffix)) ?? [];
    // A name that very many files have says nothing of where one has moved.
    const found = alike.length > MOST_ALIKE ? [] : alike.filter((p) => p.toLowerCase().endsWith(wanted));
    return found.length === 1 ? found[0]! : null;
  };
  const find = (path: string | null): string | null =>
    path === null ? null : exact.has(path) ? path : (folded.get(path.toLowerCase()) ?? null);

  return (document) => (address, use) => {
    const based = FILEBASE.test(address);
    if (!based && (address === '' || address.startsWith('#'))) return { address, path: null, present: false };
    const clean = cleanAddress(based ? address.replace(FILEBASE, '') : address);
    if (based) {
      // The base stands for the package's root; "..", a leading "/" and a query are met in the field.
      const inner = clean.replace(/^(?:\.{0,2}\/)+/u, '');
      const there = find(inner);
      if (there) return { address: there, path: there, present: true };
      const moved = bySuffix(inner);
      if (moved) return { address: moved, path: moved, present: true, moved: inner };
      return { address: inner, path: inner, present: false };
    }
    const path = resolvePath(document, clean);
    const there = find(path) ?? find(resolvePath('', clean.replace(/^(?:\.\.\/)+/u, '')));
    if (there) return { address: there, path: there, present: true };
    if (use === 'link') return { address, path: null, present: false };
    const moved = bySuffix(clean.replace(/^(?:\.{0,2}\/)+/u, ''));
    if (moved) return { address: moved, path: moved, present: true, moved: clean };
    return { address: path ?? clean, path: path ?? clean, present: false };
  };
}
