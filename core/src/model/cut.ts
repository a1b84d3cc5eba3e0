/** The beginning of a text, as long as is asked for in UTF-16 units at most, never ending in half a character. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const last = text.charCodeAt(most - 1);
  return text.slice(0, last >= 0xd800 && last <= 0xdbff ? most - 1 : most);
}

/** The same with a mark where more follows. */
export const cutShort = (text: string, most: number): string =>
  text.length <= most ? text : `${cut(text, most)}…`;

/** Controls, and signs that turn the direction of what follows (Unicode Standard Annex 9, 2.1 to 2.4). */
// eslint-disable-next-line no-control-regex
const HIDDEN = /[\u0000-\u001F\u007F-\u009F\u202A-\u202E\u2066-\u2069\u2028\u2029]/gu;

/**
 * A name as people may be shown it: what is not seen, and what makes the rest look like another name, is written out
 * (`⟨U+202E⟩`).
 */
export const shownName = (name: string): string =>
  name.replace(HIDDEN, (c) => `⟨U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}⟩`);
