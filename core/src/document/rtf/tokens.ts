/** The tokens of an RTF file, one after the other: `{\b Which}` is open, word b, text, close. Nothing is recursive. */
export type Token =
  | { readonly type: 'open' | 'close' }
  | { readonly type: 'word'; readonly name: string; readonly value: number | null }
  /** One byte in the code page that holds here. */
  | { readonly type: 'byte'; readonly byte: number }
  /** Bytes of plain text, from and to in the file. */
  | { readonly type: 'text'; readonly from: number; readonly to: number }
  | { readonly type: 'binary'; readonly from: number; readonly to: number };

const BACKSLASH = 0x5c;
const OPEN = 0x7b;
const CLOSE = 0x7d;
const isLetter = (b: number): boolean => (b >= 0x61 && b <= 0x7a) || (b >= 0x41 && b <= 0x5a);
const isDigit = (b: number): boolean => b >= 0x30 && b <= 0x39;
const MOST_LETTERS = 32;

/** Rich Text Format 1.9.1, "RTF Syntax". */
export function* tokens(bytes: Uint8Array): Generator<Token> {
  let at = 0;
  const end = bytes.length;
  while (at < end) {
    const byte = bytes[at]!;
    if (byte === OPEN || byte === CLOSE) {
      yield { type: byte === OPEN ? 'open' : 'close' };
      at += 1;
    } else if (byte === BACKSLASH) {
      const next = bytes[at + 1] ?? 0;
      if (next === 0x27) {
        const hex = Number.parseInt(String.fromCharCode(bytes[at + 2] ?? 0, bytes[at + 3] ?? 0), 16);
        if (!Number.isNaN(hex)) yield { type: 'byte', byte: hex };
        at += 4;
      } else if (isLetter(next)) {
        let to = at + 1;
        while (to < end && isLetter(bytes[to]!) && to - at <= MOST_LETTERS) to += 1;
        const name = latin(bytes, at + 1, to);
        let value: number | null = null;
        const from = to;
        if (bytes[to] === 0x2d) to += 1;
        while (to < end && isDigit(bytes[to]!) && to - from < 12) to += 1;
        if (to > from && isDigit(bytes[to - 1]!)) value = Number(latin(bytes, from, to));
        else to = from;
        if (bytes[to] === 0x20) to += 1;
        if (name === 'bin' && value !== null && value > 0) {
          const stop = Math.min(end, to + value);
          yield { type: 'binary', from: to, to: stop };
          to = stop;
        } else yield { type: 'word', name, value };
        at = to;
      } else {
        yield {
          type: 'word',
          name: next === 0x0a || next === 0x0d ? 'par' : String.fromCharCode(next),
          value: null,
        };
        at += 2;
      }
    } else if (byte === 0x0a || byte === 0x0d) at += 1;
    else {
      let to = at + 1;
      while (
        to < end &&
        bytes[to] !== BACKSLASH &&
        bytes[to] !== OPEN &&
        bytes[to] !== CLOSE &&
        bytes[to] !== 0x0a &&
        bytes[to] !== 0x0d
      )
        to += 1;
      yield { type: 'text', from: at, to };
      at = to;
    }
  }
}

function latin(bytes: Uint8Array, from: number, to: number): string {
  let out = '';
  for (let at = from; at < to; at++) out += String.fromCharCode(bytes[at]!);
  return out;
}
