import { zipSync, type Zippable } from 'fflate';

/** What the end record of an archive can count to (APPNOTE 6.3.3, "End of central directory record"). */
const MOST_COUNTED = 0xffff;
const END = { bytes: 22, onDisk: 8, inAll: 10, directoryBytes: 12, directoryAt: 16 } as const;

/** An archive of files by path, of any number: beyond what an ordinary end record can count, with a Zip64 one. */
export function zipped(files: Zippable): Uint8Array {
  const bytes = zipSync(files);
  const count = Object.keys(files).length;
  return count < MOST_COUNTED ? bytes : withLongEnd(bytes, count);
}

/** Puts a Zip64 end record and its locator before the end record (APPNOTE 6.3.3, 4.3.14 and 4.3.15). */
function withLongEnd(bytes: Uint8Array, count: number): Uint8Array {
  const at = bytes.length - END.bytes;
  const end = new DataView(bytes.buffer, bytes.byteOffset + at, END.bytes);
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
  locator.setBigUint64(8, BigInt(at), true);
  // Disks in all.
  locator.setUint32(16, 1, true);
  const out = new Uint8Array(bytes.length + record.byteLength + locator.byteLength);
  out.set(bytes.subarray(0, at));
  out.set(new Uint8Array(record.buffer), at);
  out.set(new Uint8Array(locator.buffer), at + record.byteLength);
  const last = at + record.byteLength + locator.byteLength;
  out.set(bytes.subarray(at), last);
  const told = new DataView(out.buffer, last, END.bytes);
  told.setUint16(END.onDisk, MOST_COUNTED, true);
  told.setUint16(END.inAll, MOST_COUNTED, true);
  return out;
}
