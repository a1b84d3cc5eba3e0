/** What stands around LaTeX in a text. */
export const TEX_DELIMITERS = [
  { open: '\\(', close: '\\)', display: false },
  { open: '\\[', close: '\\]', display: true },
  { open: '$$', close: '$$', display: true },
];
export const TEX_OPENING = /\\[([]|\$\$/gu;

/** Where formulas of any length stand in a text, with their delimiters: from, and to, in time linear in its length. */
export function texSpans(text: string): [number, number][] {
  const out: [number, number][] = [];
  const unclosed = new Set<string>();
  TEX_OPENING.lastIndex = 0;
  for (let found = TEX_OPENING.exec(text); found; found = TEX_OPENING.exec(text)) {
    const { open, close } = TEX_DELIMITERS.find((d) => d.open === found![0])!;
    const end = unclosed.has(open) ? -1 : text.indexOf(close, found.index + open.length + 1);
    if (end < 0) {
      unclosed.add(open);
      TEX_OPENING.lastIndex = found.index + 1;
      continue;
    }
    out.push([found.index, end + close.length]);
    TEX_OPENING.lastIndex = end + close.length;
  }
  return out;
}
