import { Zip, type ZipInputFile } from 'fflate';
import type { PackageEntries } from '../formats/packaging.ts';
import type { Platform } from '../intake/platform.ts';

/** What an archive is packed with. */
export type Packer = Pick<Platform, 'deflateRaw' | 'crc32'>;

/** What the end record of an archive can count to (APPNOTE 6.3.3, "End of central directory record"). */
const MOST_COUNTED = 0xffff;
const END = { bytes: 22, onDisk: 8, inAll: 10, directoryBytes: 12, directoryAt: 16 } as const;
/** APPNOTE 6.3.3, 4.4.5. */
const DEFLATED = 8;

/** A fixed date in every entry, so that the same content gives the same bytes. */
const ENTRY_DATE = new Date(2000, 0, 1);
/** What is packed already: it is deflated without any effort, since a size that follows its data can follow nothing else. */
const PACKED = /\.(?:png|jpe?g|gif|webp|mp3|mp4|zip)$/iu;
const [EFFORT, NO_EFFORT] = [6, 0];

/** An archive of files by path, of any number: beyond what an ordinary end record can count, with a Zip64 one. */
export function zipped(files: PackageEntries, packer: Packer): Uint8Array {
  let count = 0;
  let out = new Pieces();
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    out.add(piece);
  });
  for (const [path, content] of files) {
    count += 1;
    const entry: ZipInputFile = {
      filename: path,
      size: content.length,
      crc: packer.crc32(content),
      compression: DEFLATED,
      mtime: ENTRY_DATE,
    };
    zip.add(entry);
    entry.ondata!(null, packer.deflateRaw(content, PACKED.test(path) ? NO_EFFORT : EFFORT), true);
  }
  const entries = out;
  out = new Pieces();
  zip.end();
  const directory = joined(out.pieces);
  const closing = count < MOST_COUNTED ? directory : withLongEnd(directory, entries.bytes, count);
  return joined([...entries.pieces, closing]);
}

/** Pieces are put together at this many bytes: hundreds of thousands of small ones take more than what they hold. */
const TOGETHER = 2 ** 20;

/** What an archive is made of, piece by piece; a file is three. */
class Pieces {
  readonly #done: Uint8Array[] = [];
  #waiting: Uint8Array[] = [];
  #waitingBytes = 0;
  #doneBytes = 0;

  get bytes(): number {
    return this.#doneBytes + this.#waitingBytes;
  }

  get pieces(): readonly Uint8Array[] {
    return [...this.#done, ...this.#waiting];
  }

  add(piece: Uint8Array): void {
    this.#waiting.push(piece);
    this.#waitingBytes += piece.length;
    if (this.#waitingBytes < TOGETHER) return;
    this.#done.push(joined(this.#waiting));
    this.#doneBytes += this.#waitingBytes;
    this.#waiting = [];
    this.#waitingBytes = 0;
  }
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    out.set(chunk, at);
    at += chunk.length;
  }
  return out;
}

/**
 * Puts a Zip64 end record and its locator before the end record (APPNOTE 6.3.3, 4.3.14 and 4.3.15).
 * @param directory the directory and the end record
 * @param before how many bytes stand before it
 */
function withLongEnd(directory: Uint8Array, before: number, count: number): Uint8Array {
  const at = directory.length - END.bytes;
  const end = new DataView(directory.buffer, directory.byteOffset + at, END.bytes);
  const record = new DataView(new ArrayBuffer(56));
  record.setUint32(0, 0x06064b50, true);
  // What follows this field.
  record.setBigUint64(4, 44n, true);
  // Version made by, and needed: 4.5 knows Zip64.
  record.setUint16(12, 45, true);
  record.setUint16(14, 45, true);
  record.setBigUint64(24, BigInt(count), true);
  record.setBigUint64(32, BigInt(count), true);
  record.setBigUint64(40, BigInt(end.getUint32(END.directoryBytes, true)), true);
  record.setBigUint64(48, BigInt(end.getUint32(END.directoryAt, true)), true);
  const locator = new DataView(new ArrayBuffer(20));
  locator.setUint32(0, 0x07064b50, true);
  locator.setBigUint64(8, BigInt(before + at), true);
  // Disks in all.
  locator.setUint32(16, 1, true);
  const told = directory.slice(at);
  const counts = new DataView(told.buffer);
  counts.setUint16(END.onDisk, MOST_COUNTED, true);
  counts.setUint16(END.inAll, MOST_COUNTED, true);
  return joined([
    directory.subarray(0, at),
    new Uint8Array(record.buffer),
    new Uint8Array(locator.buffer),
    told,
  ]);
}
