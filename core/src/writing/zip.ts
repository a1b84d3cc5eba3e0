import { Zip, type ZipInputFile } from 'fflate';
import type { PackageEntries } from '../formats/packaging.ts';
import type { Platform } from '../intake/platform.ts';
import { Gathered } from '../model/gathered.ts';

/** What an archive is packed with. */
export type Packer = Pick<Platform, 'deflateRaw' | 'crc32'>;

/** What the end record of an archive can count to (APPNOTE 6.3.3, "End of central directory record"). */
const MOST_COUNTED = 0xffff;
/** APPNOTE 6.3.3, 4.4.5. */
const DEFLATED = 8;

/** A fixed date in every entry, so that the same content gives the same bytes. */
const ENTRY_DATE = new Date(2000, 0, 1);
/** What is packed already: it is deflated without any effort, since a size that follows its data can follow nothing else. */
const PACKED = /\.(?:png|jpe?g|gif|webp|mp3|mp4|zip)$/iu;
const [EFFORT, NO_EFFORT] = [6, 0];

/** So many files are packed in a run: what is remembered of each while it lasts takes a kilobyte. */
const FILES_A_RUN = 1000;

/** An archive of files by path, of any number: beyond what an ordinary end record can count, with a Zip64 one. */
export function zipped(files: PackageEntries, packer: Packer): Uint8Array {
  const entries = new Gathered();
  const directory = new Gathered();
  let count = 0;
  let run = new Run(entries, packer);
  for (const [path, content] of files) {
    if (count > 0 && count % FILES_A_RUN === 0) {
      directory.add(run.directory());
      run = new Run(entries, packer);
    }
    run.add(path, content);
    count += 1;
  }
  directory.add(run.directory());
  const end = endOf(count, directory.bytes, entries.bytes);
  return entries.whole(directory.whole(), ...end);
}

/** Files that follow each other in an archive, packed as if they were one of their own. */
class Run {
  readonly #packer: Packer;
  readonly #zip: Zip;
  /** Where it begins. */
  readonly #from: number;
  /** Where pieces go. */
  #into: Gathered;

  /** @param entries takes the files */
  constructor(entries: Gathered, packer: Packer) {
    this.#packer = packer;
    this.#from = entries.bytes;
    this.#into = entries;
    this.#zip = new Zip((error, piece) => {
      if (error) throw error;
      this.#into.add(piece);
    });
  }

  add(path: string, content: Uint8Array): void {
    const { crc32, deflateRaw } = this.#packer;
    const entry: ZipInputFile = {
      filename: path,
      size: content.length,
      crc: crc32(content),
      compression: DEFLATED,
      mtime: ENTRY_DATE,
    };
    this.#zip.add(entry);
    entry.ondata!(null, deflateRaw(content, PACKED.test(path) ? NO_EFFORT : EFFORT), true);
  }

  /** Its part of the archive's directory, once all files are in it. */
  directory(): Uint8Array {
    this.#into = new Gathered();
    this.#zip.end();
    const closing = this.#into.whole();
    const records = closing.subarray(0, closing.length - END_BYTES);
    const view = new DataView(records.buffer, records.byteOffset, records.length);
    // APPNOTE 6.3.3, 4.3.12: 46 bytes, then name, extra field and comment; where the file stands is the last of the 46.
    const long = (at: number): number =>
      [28, 30, 32].reduce((sum, of) => sum + view.getUint16(at + of, true), 46);
    for (let at = 0; at < records.length; at += long(at))
      view.setUint32(at + 42, view.getUint32(at + 42, true) + this.#from, true);
    return records;
  }
}

const END_BYTES = 22;

/**
 * The end of an archive: its end record, and before it, where there are more files than that can count, a Zip64 end
 * record and its locator (APPNOTE 6.3.3, 4.3.14 to 4.3.16).
 * @param bytes the directory's
 * @param from where the directory begins
 */
function endOf(count: number, bytes: number, from: number): Uint8Array[] {
  const end = new DataView(new ArrayBuffer(END_BYTES));
  end.setUint32(0, 0x06054b50, true);
  // Files on this disk, and in all.
  for (const at of [8, 10]) end.setUint16(at, Math.min(count, MOST_COUNTED), true);
  end.setUint32(12, bytes, true);
  end.setUint32(16, from, true);
  if (count < MOST_COUNTED) return [new Uint8Array(end.buffer)];
  const record = new DataView(new ArrayBuffer(56));
  record.setUint32(0, 0x06064b50, true);
  // What follows this field.
  record.setBigUint64(4, 44n, true);
  // Version made by, and needed: 4.5 knows Zip64.
  for (const at of [12, 14]) record.setUint16(at, 45, true);
  for (const at of [24, 32]) record.setBigUint64(at, BigInt(count), true);
  record.setBigUint64(40, BigInt(bytes), true);
  record.setBigUint64(48, BigInt(from), true);
  const locator = new DataView(new ArrayBuffer(20));
  locator.setUint32(0, 0x07064b50, true);
  locator.setBigUint64(8, BigInt(from + bytes), true);
  // Disks in all.
  locator.setUint32(16, 1, true);
  return [record, locator, end].map(({ buffer }) => new Uint8Array(buffer));
}
