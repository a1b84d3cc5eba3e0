/** Joining and resolving package paths: "/"-separated, relative to the package's root, never leaving it. */

/** Resolves an address against the folder of `base` ("a/b.xml" or "a/"); null when it leaves the root. */
export function resolvePath(base: string, address: string): string | null {
  const folder = base.slice(0, base.lastIndexOf('/') + 1);
  const joined = address.startsWith('/') ? address.slice(1) : folder + address;
  const parts: string[] = [];
  for (const part of joined.split('/')) {
    if (part === '' || part === '.') continue;
    if (part === '..') {
      if (parts.length === 0) return null;
      parts.pop();
    } else parts.push(part);
  }
  return parts.join('/') + (joined.endsWith('/') && parts.length > 0 ? '/' : '');
}

/** An address without query and fragment, percent-decoding undone where it is valid. */
export function cleanAddress(address: string): string {
  const bare = address.replace(/[?#].*/su, '').replace(/\\/gu, '/');
  try {
    return decodeURIComponent(bare).normalize('NFC');
  } catch {
    return bare.normalize('NFC');
  }
}

/** The path from one file to another, for writing references. */
export function relativePath(from: string, to: string): string {
  const a = from.split('/').slice(0, -1);
  const b = to.split('/');
  let same = 0;
  while (same < a.length && same < b.length - 1 && a[same] === b[same]) same += 1;
  return [...a.slice(same).map(() => '..'), ...b.slice(same)].join('/');
}

/** Percent-encodes a path for use as an href, leaving the slashes. */
export function encodePath(path: string): string {
  return path.split('/').map(encodeURIComponent).join('/');
}

export function fileStem(path: string): string {
  const name = path.slice(path.lastIndexOf('/') + 1);
  const dot = name.lastIndexOf('.');
  return dot > 0 ? name.slice(0, dot) : name;
}
