/** Code pages of RTF: `\ansicpg` names one for the file, each font's `\fcharset` one for its text. */

/** Windows code pages as the web names them (WHATWG Encoding). */
const PAGES: Readonly<Record<number, string>> = {
  437: 'ibm866',
  866: 'ibm866',
  874: 'windows-874',
  932: 'shift_jis',
  936: 'gbk',
  949: 'euc-kr',
  950: 'big5',
  1250: 'windows-1250',
  1251: 'windows-1251',
  1252: 'windows-1252',
  1253: 'windows-1253',
  1254: 'windows-1254',
  1255: 'windows-1255',
  1256: 'windows-1256',
  1257: 'windows-1257',
  1258: 'windows-1258',
  10000: 'macintosh',
  65001: 'utf-8',
};
/** RTF 1.9.1, "Font Table": \fcharset. */
const CHARSETS: Readonly<Record<number, number>> = {
  77: 10000,
  128: 932,
  129: 949,
  134: 936,
  136: 950,
  161: 1253,
  162: 1254,
  163: 1258,
  177: 1255,
  178: 1256,
  186: 1257,
  204: 1251,
  222: 874,
  238: 1250,
};
export const SYMBOL_CHARSET = 2;

/** The code page of a font's character set; null for the file's own. */
export const pageOfCharset = (charset: number): number | null => CHARSETS[charset] ?? null;

const decoders = new Map<number, TextDecoder>();
/** Text of bytes in a code page; Windows-1252 where the page is not known. */
export function textIn(bytes: readonly number[], page: number): string {
  let decoder = decoders.get(page);
  if (!decoder) decoders.set(page, (decoder = new TextDecoder(PAGES[page] ?? 'windows-1252')));
  return decoder.decode(Uint8Array.from(bytes));
}
