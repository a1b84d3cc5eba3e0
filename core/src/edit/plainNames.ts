import type { EditOf } from './schema.ts';

/** Names that every system takes: letters and digits of ASCII, point, hyphen, underscore, in folders of such names. */
const PLAIN = /^[\w.\-/]+$/u;

/** A file's path without blanks, accents and other signs; what has no plain letter goes by its code points. */
export function plainPath(path: string): string {
  return path
    .split('/')
    .map((part) => {
      const plain = [...part.normalize('NFD').replace(/\p{Mn}/gu, '')]
        .map(
          (c) =>
            LETTERS[c] ?? (/[\w.-]/u.test(c) && c < '\u0080' ? c : /[\p{L}\p{N}]/u.test(c) ? coded(c) : ' '),
        )
        .join('');
      const joined = plain
        .trim()
        .replace(/ +/gu, '-')
        .replace(/(?<!-)-+(?=\.)/gu, '');
      return joined === '' ? 'file' : joined;
    })
    .join('/');
}

/** Letters that no accent was put on. */
const LETTERS: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  Æ: 'AE',
  ø: 'o',
  Ø: 'O',
  đ: 'd',
  Đ: 'D',
  ł: 'l',
  Ł: 'L',
  œ: 'oe',
  Œ: 'OE',
  þ: 'th',
  Þ: 'Th',
  ı: 'i',
};
const coded = (c: string): string => `u${c.codePointAt(0)!.toString(16)}`;

/** Edits that give every file a plain name of its own; none for those that have one. */
export function plainNames(paths: readonly string[]): EditOf<'file-name'>[] {
  const taken = new Set(paths);
  return paths.flatMap((path): EditOf<'file-name'>[] => {
    if (PLAIN.test(path)) return [];
    const wanted = plainPath(path);
    const dot = wanted.lastIndexOf('.');
    const cut = dot > wanted.lastIndexOf('/') + 1 ? dot : wanted.length;
    let to = wanted;
    for (let n = 2; taken.has(to); n++) to = `${wanted.slice(0, cut)}-${n}${wanted.slice(cut)}`;
    taken.add(to);
    return [{ op: 'file-name', path, to }];
  });
}
