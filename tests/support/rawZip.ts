import { crc32, deflateRawSync } from 'node:zlib';

/** A zip entry as crafted: anything left out is honest. */
export interface RawEntry {
  readonly name: string;
  readonly content: Uint8Array | string;
  readonly localName?: string;
  readonly crc?: number;
  readonly declaredSize?: number;
  readonly declaredPacked?: number;
  readonly flags?: number;
  readonly method?: 0 | 8 | 12;
  readonly unixMode?: number;
  /** Points the directory at another entry's data. */
  readonly sharesDataWith?: number;
}

/**
 * Writes a zip byte by byte (APPNOTE 6.3.3, "Local file header", "Central directory structure"), so that it
 * can lie.
 */
export function rawZip(entries: readonly RawEntry[]): Buffer {
  const parts: Buffer[] = [];
  const offsets: number[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  entries.forEach((entry, index) => {
    const content = Buffer.from(entry.content);
    const method = entry.method ?? 8;
    const data = method === 8 ? deflateRawSync(content) : content;
    const crc = entry.crc ?? crc32(content);
    const packed = entry.declaredPacked ?? data.length;
    const size = entry.declaredSize ?? content.length;
    const localName = Buffer.from(entry.localName ?? entry.name);
    const header = Buffer.alloc(30);
    header.writeUInt32LE(0x04034b50, 0);
    header.writeUInt16LE(20, 4);
    header.writeUInt16LE(entry.flags ?? 0x800, 6);
    header.writeUInt16LE(method, 8);
    header.writeUInt32LE(crc >>> 0, 14);
    header.writeUInt32LE(packed, 18);
    header.writeUInt32LE(size, 22);
    header.writeUInt16LE(localName.length, 26);
    offsets.push(at);
    parts.push(header, localName, data);
    at += header.length + localName.length + data.length;
    const name = Buffer.from(entry.name);
    const central = Buffer.alloc(46);
    central.writeUInt32LE(0x02014b50, 0);
    central.writeUInt16LE(entry.unixMode === undefined ? 20 : (3 << 8) | 20, 4);
    central.writeUInt16LE(20, 6);
    central.writeUInt16LE(entry.flags ?? 0x800, 8);
    central.writeUInt16LE(method, 10);
    central.writeUInt32LE(crc >>> 0, 16);
    central.writeUInt32LE(packed, 20);
    central.writeUInt32LE(size, 24);
    central.writeUInt16LE(name.length, 28);
    central.writeUInt32LE(((entry.unixMode ?? 0) << 16) >>> 0, 38);
    central.writeUInt32LE(offsets[entry.sharesDataWith ?? index]!, 42);
    directory.push(central, name);
  });
  const central = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(entries.length, 8);
  end.writeUInt16LE(entries.length, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(at, 16);
  return Buffer.concat([...parts, central, end]);
}
