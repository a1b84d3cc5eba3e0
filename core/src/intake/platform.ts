/**
 * What core needs from the machine it runs on. Node's comes from `@alforja/core/node`; a browser
 * can supply its own behind the same door.
 */
export interface ZipEntry {
  readonly name: string;
  /** The name as its local header has it; a mismatch with `name` is a sign of tampering. */
  readonly localNameDiffers: boolean;
  readonly method: number;
  readonly encrypted: boolean;
  readonly link: boolean;
  readonly crc32: number;
  readonly packed: number;
  /** Size as declared in the directory. */
  readonly unpacked: number;
  /** Offset of the entry's data in the archive; -1 where its local header cannot be read. */
  readonly dataStart: number;
}

export interface ZipListing {
  readonly bytes: Uint8Array;
  readonly entries: readonly ZipEntry[];
  /** Bytes before the first or after the last record that belong to no zip. */
  readonly surrounded: boolean;
}

/** A text on a page of a PDF, as it is placed there. */
export interface PdfText {
  readonly text: string;
  /** From the left and from the foot of the page, in points. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly underline: boolean;
  /** The colour of a bar behind it. */
  readonly highlight: string | null;
  /** Null for black. */
  readonly color: string | null;
  /** Whether it runs from right to left. */
  readonly rtl: boolean;
}
export interface PdfPage {
  readonly width: number;
  readonly height: number;
  readonly texts: readonly PdfText[];
}
export interface PdfDocument {
  readonly title: string;
  readonly pages: readonly PdfPage[];
  /** Whether it holds scripts, which are not run. */
  readonly scripts: boolean;
}

/** A PDF takes more to read than one may; the message says of what, and how much. */
export class PdfBeyond extends Error {
  override name = 'PdfBeyond';
}

export interface Platform {
  /**
   * Lists a zip's central directory without inflating anything. Rejects with an Error when there is none or
   * it is cut off.
   * @param most entries that are listed; a directory of more is read no further
   */
  listZip(bytes: Uint8Array, most: number): Promise<ZipListing>;
  /**
   * Inflates raw deflate data to at most `maxBytes`; null when there would be more. Throws on damaged data.
   */
  inflateRaw(data: Uint8Array, maxBytes: number): Uint8Array | null;
  /** @param level from 0, without any effort, to 9; 6 where it is not said */
  deflateRaw(data: Uint8Array, level?: number): Uint8Array<ArrayBuffer>;
  crc32(data: Uint8Array): number;
  /** The rows of each sheet of a workbook, as text; rejects with an Error where it cannot be read. */
  readSheets(bytes: Uint8Array): Promise<{ name: string; rows: string[][] }[]>;
  /**
   * The text layer of a PDF; rejects with PdfBeyond where that takes more than it may, and with an Error where it
   * cannot be read, whose name is `PasswordException` where it is encrypted.
   */
  readPdf(bytes: Uint8Array): Promise<PdfDocument>;
  /** A workbook of one sheet. */
  writeSheet(name: string, rows: readonly (readonly string[])[]): Promise<Uint8Array>;
  /** Lower-case hexadecimal. */
  sha256(data: Uint8Array): string;
}
