/** Bytes to text, by what the bytes are and not only by what they say. */
interface Decoded {
  readonly text: string;
  /** What was put right, as "declared -> used"; null where nothing was. */
  readonly repaired: { readonly declared: string; readonly used: string } | null;
}

const DECLARATION = /^\s*<\?xml[^>]*?encoding\s*=\s*["']([\w.:-]+)["']/u;

/**
 * Decodes an XML or text file: byte order marks first, then UTF-16 by its zero bytes, then the
 * declared encoding (XML 1.0, appendix F), and Windows-1252 where the bytes are no UTF-8.
 */
export function decode(bytes: Uint8Array): Decoded {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return strict(bytes.subarray(3), 'utf-8');
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return plainly(bytes.subarray(2), 'utf-16le');
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return plainly(bytes.subarray(2), 'utf-16be');
  if (bytes[0] === 0x3c && bytes[1] === 0) return plainly(bytes, 'utf-16le', 'none');
  if (bytes[0] === 0 && bytes[1] === 0x3c) return plainly(bytes, 'utf-16be', 'none');
  const declared = declaredIn(bytes);
  if (
    declared === '' ||
    declared === 'utf-8' ||
    declared === 'utf8' ||
    declared === 'us-ascii' ||
    declared.startsWith('utf-16')
  ) {
    return strict(bytes, declared || 'none');
  }
  // A file saved again as UTF-8 under its old declaration: valid multi-byte UTF-8 is never an accident.
  const asUtf8 = tryUtf8(bytes);
  if (asUtf8 !== null && bytes.some((byte) => byte >= 0x80))
    return { text: asUtf8, repaired: { declared, used: 'utf-8' } };
  try {
    const decoder = new TextDecoder(declared);
    const text = decoder.encoding === 'windows-1252' ? windows1252(bytes) : decoder.decode(bytes);
    return { text, repaired: null };
  } catch {
    return { text: windows1252(bytes), repaired: { declared, used: 'windows-1252' } };
  }
}

const LATIN1 = new TextDecoder('latin1');
const UTF8 = new TextDecoder('utf-8', { fatal: true });

/** The encoding that an XML declaration names. */
function declaredIn(bytes: Uint8Array): string {
  const head = LATIN1.decode(bytes.subarray(0, 200));
  return DECLARATION.exec(head)?.[1]?.toLowerCase() ?? '';
}

function tryUtf8(bytes: Uint8Array): string | null {
  try {
    return UTF8.decode(bytes);
  } catch {
    return null;
  }
}

function strict(bytes: Uint8Array, declared: string): Decoded {
  const text = tryUtf8(bytes);
  if (text !== null)
    return { text, repaired: declared.startsWith('utf-16') ? { declared, used: 'utf-8' } : null };
  return { text: windows1252(bytes), repaired: { declared, used: 'windows-1252' } };
}

/** 0x80 to 0x9F of Windows-1252 (WHATWG Encoding, index windows-1252). */
const C1 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008DŽ\u008F\u0090‘’“”•–—˜™š›œ\u009DžŸ';

/**
 * Some runtimes take Windows-1252 for Latin-1 and give control characters for dashes, quotes and the euro
 * sign.
 */
function windows1252(bytes: Uint8Array): string {
  const text = new TextDecoder('windows-1252').decode(bytes);
  return text.replace(/[\u0080-\u009F]/gu, (c) => C1[c.charCodeAt(0) - 0x80]!);
}

function plainly(bytes: Uint8Array, label: string, declared?: string): Decoded {
  const text = new TextDecoder(label).decode(bytes);
  return { text, repaired: declared ? { declared, used: label } : null };
}
