const ROOT =
  /^(?:\s|<\?[\s\S]*?\?>|<!--[\s\S]*?-->|<!DOCTYPE(?:[^>[]|\[[\s\S]*?\]\s*)*>)*<([A-Za-z_][\w.-]*:)?([A-Za-z_][\w.-]*)((?:\s[^>]*)?)/u;
/** A root that has not begun after so many characters is not looked for any further. */
const HEAD = 16_384;

/** The root element of an XML text as it starts: its name without prefix, and its attributes as they stand. */
export function rootOf(text: string): { readonly name: string; readonly attributes: string } | null {
  const match = ROOT.exec(text.slice(0, HEAD));
  return match ? { name: match[2]!, attributes: match[3] ?? '' } : null;
}
