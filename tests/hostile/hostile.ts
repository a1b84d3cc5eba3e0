import { zipSync } from 'fflate';

/** Files that ask for more than any file should: each is made when it is asked for, by a few lines. */
export interface Hostile {
  readonly name: string;
  readonly file: string;
  readonly make: () => Uint8Array;
  /**
   * What is to come of it: refused as a whole, or read, with so many items that nothing is wrong with and that have to
   * be there whatever else is in it. Without: either will do, within time and memory.
   */
  /** It takes more than a few seconds: only the script reads it. */
  readonly slow?: boolean;
  readonly then?: 'refused' | { readonly items: number };
}

export const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
/** An archive that packs nothing: so that it is its contents that are looked at. */
export const stored = (files: Readonly<Record<string, string>>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, utf8(text)])), { level: 0 });
export const many = (count: number, of: (at: number) => string): string =>
  Array.from({ length: count }, (_, at) => of(at)).join('');
