import { PNG } from 'pngjs';

const made = new Map<string, Uint8Array>();

/** A small picture whose bytes are told apart by what it is a drawing of. */
export function drawn(drawing: string): Uint8Array {
  const before = made.get(drawing);
  if (before) return before;
  const png = new PNG({ width: 4, height: 4 });
  let hash = 7;
  for (const c of drawing) hash = (Math.imul(hash, 31) + c.codePointAt(0)!) | 0;
  for (let at = 0; at < png.data.length; at += 4) {
    hash = (Math.imul(hash, 1103515245) + 12345) | 0;
    png.data.writeUInt32LE((hash | 0xff000000) >>> 0, at);
  }
  const bytes = new Uint8Array(PNG.sync.write(png));
  made.set(drawing, bytes);
  return bytes;
}
