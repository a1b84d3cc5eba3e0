/** A root that has not begun after so many characters is not looked for any further. */
const MAX_PROLOG = 1_000_000;

/** The root element of an XML text as it starts: its name without prefix, and its attributes as they stand. */
export function rootOf(text: string): { readonly name: string; readonly attributes: string } | null {
  const start = rootStart(text);
  if (typeof start !== 'number') return null;
  const end = text.indexOf('>', start);
  const tag = text.slice(start + 1, end < 0 ? undefined : end);
  const [, name, attributes = ''] = /^(?:[A-Za-z_][\w.-]*:)?([A-Za-z_][\w.-]*)(\s[\s\S]*)?/u.exec(tag) ?? [];
  return name === undefined ? null : { name, attributes };
}

/**
 * Where the root element of an XML text begins; `later`, where the text ends before that, as a head cut from a
 * document with a long document type does; null where something else stands there. One pass, whatever the text.
 */
export function rootStart(text: string): number | 'later' | null {
  let at = 0;
  const past = (end: string, from: number): boolean => {
    const found = text.indexOf(end, from);
    at = found < 0 ? text.length : found + end.length;
    return found >= 0;
  };
  while (at < text.length && at < MAX_PROLOG) {
    if (/[\s\uFEFF]/u.test(text[at]!)) at += 1;
    else if (text.startsWith('<?', at)) past('?>', at + 2);
    else if (text.startsWith('<!--', at)) past('-->', at + 4);
    else if (text.startsWith('<!DOCTYPE', at)) at = doctypeEnd(text, at);
    else return text[at] === '<' ? at : null;
  }
  return 'later';
}

/** Past a document type with its internal subset, in which quotes and comments hide what would end it. */
function doctypeEnd(text: string, from: number): number {
  let depth = 0;
  for (let at = from + '<!DOCTYPE'.length; at < text.length; at++) {
    const c = text[at]!;
    if (c === '"' || c === "'") at = skip(text, c, at + 1);
    else if (c === '<' && text.startsWith('<!--', at)) at = skip(text, '-->', at + 4);
    else if (c === '[') depth += 1;
    else if (c === ']') depth -= 1;
    else if (c === '>' && depth <= 0) return at + 1;
  }
  return text.length;
}

/** The last character of the first such end, or of the text. */
const skip = (text: string, end: string, from: number): number => {
  const found = text.indexOf(end, from);
  return found < 0 ? text.length : found + end.length - 1;
};
