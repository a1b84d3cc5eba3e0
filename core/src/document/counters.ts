/** How things are counted in documents: digits, letters and signs of many scripts. Data, with what it takes to read it. */

/** Letters that choices are named by, script by script, in their order (common practice in each). */
const ALPHABETS: readonly (readonly [kind: string, letters: string])[] = [
  ['a', 'abcdefghijklmnopqrstuvwxyz'],
  ['A', 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'],
  ['а', 'абвгдежзиклмнопрст'],
  ['А', 'АБВГДЕЖЗИКЛМНОПРСТ'],
  ['α', 'αβγδεζηθικλμ'],
  ['Α', 'ΑΒΓΔΕΖΗΘΙΚΛΜ'],
  ['أ', 'أبجدهوزحطي'],
  ['أ', 'أبتثجحخدذرزسشص'],
  ['ا', 'ابجدهوزحطي'],
  ['ا', 'ابتثجحخدذرزسشص'],
  ['א', 'אבגדהוזחטי'],
  ['ア', 'アイウエオカキクケコ'],
  ['ｱ', 'ｱｲｳｴｵｶｷｸｹｺ'],
  ['あ', 'あいうえおかきくけこ'],
  ['ㄱ', 'ㄱㄴㄷㄹㅁㅂㅅㅇ'],
  ['가', '가나다라마바사아'],
  ['甲', '甲乙丙丁戊己庚辛'],
  ['①', '①②③④⑤⑥⑦⑧⑨⑩⑪⑫⑬⑭⑮⑯⑰⑱⑲⑳'],
  ['ⓐ', 'ⓐⓑⓒⓓⓔⓕⓖⓗ'],
  ['一', '一二三四五六七八九十'],
];

/** Signs that lists stand behind when they are not counted. */
const BULLETS = '•◦▪▫■□●○◯‣⁃∙·–—-*➢➤►▶✓';

/** The value of decimal digits of any script; null where they are none. */
export function digitsValue(text: string): number | null {
  let value = 0;
  for (const c of text) {
    const digit = digitOf(c);
    if (digit === null) return null;
    value = value * 10 + digit;
  }
  return text === '' || value > 99_999 ? null : value;
}

/** Unicode, 4.6: digits of a script stand in a row of ten whose first is its zero. */
function digitOf(c: string): number | null {
  if (c >= '0' && c <= '9') return c.charCodeAt(0) - 48;
  if (!/^\p{Nd}$/u.test(c)) return null;
  const code = c.codePointAt(0)!;
  let zero = code;
  while (code - zero < 9 && /^\p{Nd}$/u.test(String.fromCodePoint(zero - 1))) zero -= 1;
  // Rows of ten that touch are told apart by their tens; all that are met begin at a multiple of sixteen or ten.
  return code - zero > 9 ? null : code - zero;
}

/** The same text with digits of every script as 0 to 9. */
export const asciiDigits = (text: string): string => text.replace(/\p{Nd}/gu, (c) => String(digitOf(c) ?? c));

const ROMAN: readonly (readonly [string, number])[] = [
  ['l', 50],
  ['xl', 40],
  ['x', 10],
  ['ix', 9],
  ['v', 5],
  ['iv', 4],
  ['i', 1],
];

/** A number up to 89 in small roman letters. */
export function romanOf(n: number): string {
  let left = n;
  let out = '';
  for (const [sign, value] of ROMAN)
    while (left >= value) {
      out += sign;
      left -= value;
    }
  return out;
}
const ROMANS = new Map(Array.from({ length: 50 }, (_, at) => [romanOf(at + 1), at + 1]));

export interface Counted {
  /** What it is counted by: `1`, `a`, `A`, `i`, `I`, the first letter of another script, or a bullet. */
  readonly kind: string;
  /** From 1; 0 for a bullet. */
  readonly ordinal: number;
}

/** What each letter may count, looked up for every line of a document. */
const LETTERS = new Map<string, Counted[]>();
for (const [kind, letters] of ALPHABETS)
  for (const [at, letter] of [...letters].entries()) {
    const had = LETTERS.get(letter) ?? [];
    if (!had.some((c) => c.kind === kind && c.ordinal === at + 1)) had.push({ kind, ordinal: at + 1 });
    LETTERS.set(letter, had);
  }

/** Every way a counter can be meant: "i" is a letter and a number. */
export function readCounter(text: string): Counted[] {
  const value = digitsValue(text);
  if (value !== null) return [{ kind: '1', ordinal: value }];
  const own = LETTERS.get(text);
  const plain = own || /^[A-Za-z]+$/u.test(text) ? text : text.normalize('NFKC');
  const out = [...(own ?? (/^[A-Za-z]$/u.test(plain) ? LETTERS.get(plain)! : []))];
  const roman = ROMANS.get(plain.toLowerCase());
  const small = plain === plain.toLowerCase();
  if (roman !== undefined && (small || plain === plain.toUpperCase()))
    out.push({ kind: small ? 'i' : 'I', ordinal: roman });
  return out;
}

export const isBullet = (c: string): boolean => c !== '' && BULLETS.includes(c);

/** The counter of a kind at a place from 1, as `readCounter` reads it. */
export function counterText(kind: string, ordinal: number): string {
  if (kind === '1') return String(ordinal);
  if (kind === 'i') return romanOf(ordinal);
  if (kind === 'I') return romanOf(ordinal).toUpperCase();
  const letters = ALPHABETS.find(([k]) => k === kind);
  return letters ? ([...letters[1]][ordinal - 1] ?? String(ordinal)) : kind;
}

/** All letters that count something, for patterns. */
export const COUNTING_LETTERS = [...new Set(ALPHABETS.flatMap(([, letters]) => [...letters]))].join('');
