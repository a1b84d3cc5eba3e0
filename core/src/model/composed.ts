/** The first mark that goes with the letter before it; below it, text is composed as it stands. */
const FIRST_MARK = 0x300;

/** Composed form (Unicode NFC): a letter with its mark is one text however it was typed. */
export function composed(text: string): string {
  for (let at = 0; at < text.length; at++)
    if (text.charCodeAt(at) >= FIRST_MARK) return text.normalize('NFC');
  return text;
}

/** The same value with every text in it composed. */
export function composedAll<T>(value: T): T;
export function composedAll(value: unknown): unknown {
  if (typeof value === 'string') return composed(value);
  if (Array.isArray(value)) return value.map((v) => composedAll(v as unknown));
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(
      Object.entries(value).map(([key, v]) => [composed(key), composedAll(v as unknown)]),
    );
  return value;
}
