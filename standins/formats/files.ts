import { posix } from 'node:path';

/** How mark-up names the files of a package, and how a system keeps such a name: `held:` and the path. */

const REFERENCE = /\b(src|data|href|poster|uri)(\s*=\s*)(["'])(.*?)\3/gu;
const BASE = /^(?:\$|%24)IMS-CC-FILEBASE(?:\$|%24)\/?(?:\.\.\/)?/u;

/**
 * Gives references to files of the package the names they are kept under.
 * @param document the path of the document they stand in
 */
export function held(markup: string, document: string, files: ReadonlySet<string>): string {
  return markup.replace(REFERENCE, (whole, name: string, equals: string, quote: string, said: string) => {
    const path = BASE.test(said)
      ? posix.normalize(decoded(said.replace(BASE, '')))
      : posix.join(posix.dirname(document), decoded(said));
    return files.has(path) ? `${name}${equals}${quote}held:${encoded(path)}${quote}` : whole;
  });
}

const encoded = (path: string): string => encodeURIComponent(path).replace(/'/gu, '%27');

function decoded(said: string): string {
  try {
    return decodeURI(said.replace(/&amp;/gu, '&').split(/[?#]/u)[0]!);
  } catch {
    return said;
  }
}

const HELD = /held:([\w.!~*()%-]+)/gu;

/** The files that mark-up speaks of. */
export const filesIn = (markup: string): string[] =>
  [...markup.matchAll(HELD)].map(([, path]) => decodeURIComponent(path!));

/** Writes the names of files as a document needs them. */
export const named = (markup: string, name: (path: string) => string): string =>
  markup.replace(HELD, (_, path: string) => name(decodeURIComponent(path)));

/** The same mark-up with files under other names, still kept as `held:`. */
export const renamed = (markup: string, name: (path: string) => string): string =>
  named(markup, (path) => `held:${encoded(name(path))}`);
