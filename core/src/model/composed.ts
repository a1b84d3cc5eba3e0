/** Composed form (Unicode NFC): a letter with its mark is one text however it was typed. */
export const composed = (text: string): string => text.normalize('NFC');

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
