/**
 * A seed from any text, the same for the same text (FNV-1a over its UTF-16 units, common practice): 32 bits, none of
 * them a sign.
 */
export function seedOf(text: string): number {
  let h = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) {
    h = Math.imul(h ^ (text.charCodeAt(at) & 0xff), 0x01000193);
    h = Math.imul(h ^ (text.charCodeAt(at) >>> 8), 0x01000193);
  }
  return h >>> 0;
}
