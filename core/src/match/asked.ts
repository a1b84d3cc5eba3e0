import type { InteractionKind } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { composed } from '../model/composed.ts';
import { choicesOf } from '../model/options.ts';
import { bodyText, plain, stemText } from '../model/plainText.ts';
import { interactionsOf } from '../model/visit.ts';
import { canonicalMath, canonicalText } from './canonical.ts';

type Asking = Pick<Item, 'body'>;

/** What an item asks, found in one pass over its words. */
export interface Asked {
  /** See `fingerprint`. */
  readonly print: string;
  /** Whether there are words, numbers or signs before its choices. */
  readonly says: boolean;
  /** Hashes of the pairs of neighbouring words, each once, in order. */
  readonly pairs: Uint32Array;
  /** The kind of its first interaction; null where it has none. */
  readonly kind: InteractionKind | null;
}

/** The texts of an item whose words count: what it says, then each choice. */
const textsOf = (item: Asking): string[] => [
  bodyText(item),
  ...choicesOf(item).map((c) => plain(c.content) || c.label),
];

// Scripts without blanks between words are taken letter by letter; marks stay with their letters.
const WORD =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}\p{Script=Tibetan}]|[\p{L}\p{N}\p{M}]+/gu;

const wordsIn = (text: string): readonly string[] => text.normalize('NFKC').toLowerCase().match(WORD) ?? [];

/** Lower-case words of everything an item says, choices included, in a form free of punctuation. */
export const wordsOf = (item: Asking): string[] => textsOf(item).flatMap(wordsIn);

const known = new WeakMap<Asking, string>();

/** Says what `fingerprint` came to when an item was read, so that its words need not be looked at once more. */
export const knowFingerprint = (item: Asking, print: string): unknown => known.set(item, print);

/** A short, stable name for what an item asks: wording, mathematics and choices, whatever their order. */
export const fingerprint = (item: Asking): string => known.get(item) ?? scanned(item).name;

/** The same, and what tells whether another item asks nearly the same. */
export function askedBy(item: Asking): Asked {
  const scan = scanned(item);
  return {
    print: scan.name,
    says: stemText(item) !== '',
    pairs: scan.pairs(),
    kind: interactionsOf(item)[0]?.kind ?? null,
  };
}

function scanned(item: Asking): Scan {
  const scan = new Scan();
  for (const text of textsOf(item)) scan.words(text);
  scan.add(APART);
  scan.text(canonicalMath(item.body).join('|'));
  scan.add(APART);
  const choices = choicesOf(item).map(
    (c) => canonicalText(c.content) + canonicalMath(c.content).join() + composed(c.label),
  );
  scan.text(choices.sort().join('|'));
  scan.add(APART);
  scan.text(
    interactionsOf(item)
      .map((i) => i.kind)
      .join(),
  );
  return scan;
}

const APART = 1;
const BLANK = 32;
const ASCII = 128;
/** What sets a capital apart from its small letter. */
const CASE = 32;
const isDigit = (c: number): boolean => c >= 48 && c <= 57;
const isSmall = (c: number): boolean => c >= 97 && c <= 122;
const isCapital = (c: number): boolean => c >= 65 && c <= 90;

/** FNV-1a (common practice). */
const FNV_START = 0x811c9dc5 | 0;
const FNV_PRIME = 0x01000193;

/** Two 32-bit multiplicative hashes side by side (common practice); not for secrets. */
const PRIME_A = 2654435761 | 0;
const PRIME_B = 1597334677;

/** A hash of all that is added, and one of each word. */
class Scan {
  private a = 0xdeadbeef | 0;
  private b = 0x41c6ce57 | 0;
  private readonly hashes: number[] = [];

  add(c: number): void {
    this.a = Math.imul(this.a ^ c, PRIME_A);
    this.b = Math.imul(this.b ^ c, PRIME_B);
  }

  text(text: string): void {
    for (let at = 0; at < text.length; at++) this.add(text.charCodeAt(at));
  }

  /** The words of a text, a blank between any two of them. */
  words(text: string): void {
    if (this.plainWords(text)) return;
    for (const word of wordsIn(text)) {
      if (this.hashes.length > 0) this.add(BLANK);
      this.text(word);
      let hash = FNV_START;
      for (let at = 0; at < word.length; at++) hash = Math.imul(hash ^ word.charCodeAt(at), FNV_PRIME);
      this.hashes.push(hash >>> 0);
    }
  }

  /** Whether it was of ASCII only: the words of all else are told by Unicode's tables, and nothing is added. */
  private plainWords(text: string): boolean {
    const { hashes } = this;
    const count = hashes.length;
    // Kept here while it runs: this is done for every letter there is.
    let { a, b } = this;
    let hash = 0;
    let inside = false;
    for (let at = 0; at < text.length; at++) {
      const given = text.charCodeAt(at);
      if (given >= ASCII) {
        hashes.length = count;
        return false;
      }
      const c = isCapital(given) ? given + CASE : given;
      if (isSmall(c) || isDigit(c)) {
        if (!inside) {
          if (hashes.length > 0) {
            a = Math.imul(a ^ BLANK, PRIME_A);
            b = Math.imul(b ^ BLANK, PRIME_B);
          }
          hash = FNV_START;
          inside = true;
        }
        a = Math.imul(a ^ c, PRIME_A);
        b = Math.imul(b ^ c, PRIME_B);
        hash = Math.imul(hash ^ c, FNV_PRIME);
      } else if (inside) {
        hashes.push(hash >>> 0);
        inside = false;
      }
    }
    if (inside) hashes.push(hash >>> 0);
    [this.a, this.b] = [a, b];
    return true;
  }

  /** Sixteen hexadecimal digits. */
  get name(): string {
    let { a, b } = this;
    a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
    b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
    return (a >>> 0).toString(16).padStart(8, '0') + (b >>> 0).toString(16).padStart(8, '0');
  }

  pairs(): Uint32Array {
    const { hashes } = this;
    const pairs = new Uint32Array(Math.max(0, hashes.length - 1));
    for (let at = 0; at < pairs.length; at++) pairs[at] = mix(hashes[at]!, hashes[at + 1]!);
    pairs.sort();
    let kept = 0;
    for (let at = 0; at < pairs.length; at++)
      if (at === 0 || pairs[at] !== pairs[at - 1]) pairs[kept++] = pairs[at]!;
    return kept === pairs.length ? pairs : pairs.slice(0, kept);
  }
}

/** Two numbers into one of 32 bits (a round of MurmurHash3, common practice). */
export function mix(a: number, b: number): number {
  let h = Math.imul(a ^ Math.imul(b, 0xcc9e2d51), 0x1b873593);
  h ^= h >>> 15;
  h = Math.imul(h, 0x85ebca6b);
  return (h ^ (h >>> 13)) >>> 0;
}
