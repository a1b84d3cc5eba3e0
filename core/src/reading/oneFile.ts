import { hasZipEnd, looksLikeZip, openDirectory } from '../intake/archive.ts';
import type { Platform } from '../intake/platform.ts';
import { wrapperOf } from './open.ts';

const INSIDE = '!/';

/**
 * One file of a package by the path a holding gives it: its directory is checked, and nothing but that entry is
 * unpacked. Null where there is none.
 * @throws Refusal where the package cannot be trusted
 */
export async function oneFile(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  path: string,
): Promise<Uint8Array | null> {
  if (!looksLikeZip(bytes) && !hasZipEnd(bytes)) return path === name ? bytes : null;
  const { paths, read } = await openDirectory(name, bytes, platform);
  const folder = wrapperOf(paths);
  const at = (given: string): Uint8Array | null => read(folder === null ? given : `${folder}/${given}`);
  const inside = path.indexOf(INSIDE);
  if (inside < 0) return at(path);
  const outer = at(path.slice(0, inside));
  // A package within one, and none within that: no reader goes deeper.
  return outer && oneFile(path.slice(0, inside), outer, platform, path.slice(inside + INSIDE.length));
}
