import { cut } from '../model/cut.ts';
import { finding, refuse, type Finding } from '../model/finding.ts';
import type { Platform, ZipEntry } from './platform.ts';

/** Limits on what an archive may be; all settable. */
export interface ArchiveLimits {
  readonly maxPacked: number;
  readonly maxUnpacked: number;
  /** So many entries may come of any upload, and beyond that one for so many of its packed bytes. */
  readonly maxEntries: number;
  readonly bytesPerEntry: number;
  /** Unpacked to packed, for one entry above `ratioFrom` bytes. */
  readonly maxRatio: number;
  readonly ratioFrom: number;
  /** So many bytes of texts stay unpacked at a time until they are read. */
  readonly maxKept: number;
  /** What is left for a whole upload, archives within archives together. */
  readonly allowance?: Allowance;
}

/** What all archives of one upload may take together; counted down as they are opened. */
export interface Allowance {
  entries: number;
  unpacked: number;
}

/**
 * The allowance of an upload: as its limits say, and no more bytes than so small a file can honestly hold, however
 * they are spread over entries and archives.
 */
export const allowanceFor = (bytes: number, limits: ArchiveLimits): Allowance => ({
  entries: Math.max(limits.maxEntries, Math.floor(bytes / limits.bytesPerEntry)),
  unpacked: Math.min(limits.maxUnpacked, Math.max(FREE_UNPACKED, bytes * limits.maxRatio)),
});
/** So much may come of any upload. */
const FREE_UNPACKED = 16 * 1024 * 1024;

export const DEFAULT_LIMITS: ArchiveLimits = {
  maxPacked: 200 * 1024 * 1024,
  maxUnpacked: 1024 * 1024 * 1024,
  maxEntries: 20_000,
  // A question that is packed in a file of its own takes more than twice that, with its place in the directory.
  bytesPerEntry: 300,
  maxRatio: 200,
  ratioFrom: 1024 * 1024,
  maxKept: 32 * 1024 * 1024,
};

interface ArchiveFile {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** Told of each file while it is unpacked, so that whoever looks into all of them need not unpack them again. */
export type LookInto = (sha256: string, content: Uint8Array) => void;

/** A checked archive: every name safe, every size, ratio and checksum verified. */
export interface Archive {
  readonly files: ReadonlyMap<string, ArchiveFile>;
  readonly read: (path: string) => Uint8Array | null;
  /** The same for the last time, as far as anybody knows: what was kept of it unpacked is let go of. */
  readonly take: (path: string) => Uint8Array | null;
  readonly findings: readonly Finding[];
}

const RUBBISH = /(?:^|\/)(?:__MACOSX(?:\/|$)|\.DS_Store$|Thumbs\.db$|desktop\.ini$|\._[^/]*$)/iu;
const TEXT_START = /^[\s\uFEFF]*</u;

export function looksLikeZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5 || bytes[2] === 7);
}

/** Whether a zip's end record stands near the end, as in an archive with something before it. */
export function hasZipEnd(bytes: Uint8Array): boolean {
  const tail = bytes.subarray(Math.max(0, bytes.length - 66_000));
  for (let at = tail.length - 22; at >= 0; at--) {
    if (tail[at] === 0x50 && tail[at + 1] === 0x4b && tail[at + 2] === 5 && tail[at + 3] === 6) return true;
  }
  return false;
}

/**
 * The one guarded door for archives. Refuses (throws Refusal) what cannot be trusted as a whole:
 * unsafe or duplicate names, links, encryption, truncation, overlaps, false sizes, anything over the limits.
 * One entry with a wrong checksum or an unknown method is left out with a finding.
 */
export async function openArchive(
  name: string,
  given: Uint8Array,
  platform: Platform,
  limits: ArchiveLimits = DEFAULT_LIMITS,
  look?: LookInto,
): Promise<Archive> {
  const { bytes, located, findings } = await locate(name, given, platform, limits);
  const files = new Map<string, ArchiveFile>();
  const kept = new Map<string, Uint8Array>();
  let keptBytes = 0;
  let rubbish = 0;
  for (const [path, entry] of located) {
    const data = unpack(entry, path, bytes, platform, limits, findings);
    if (data === null) continue;
    if (RUBBISH.test(path)) {
      rubbish += 1;
      continue;
    }
    const sha256 = platform.sha256(data);
    files.set(path, { path, bytes: data.length, sha256 });
    look?.(sha256, data);
    // Text is read right after this; large media is inflated again if it is ever asked for, and so is very much text.
    if (keptBytes + data.length > limits.maxKept || !(data.length < 65_536 || isText(data))) continue;
    kept.set(path, data);
    keptBytes += data.length;
  }
  if (rubbish > 0) findings.push(finding('system-files-ignored', 'note', { path: name }, { count: rubbish }));
  const read = (path: string): Uint8Array | null => {
    const had = kept.get(path);
    if (had) return had;
    const entry = files.has(path) ? located.get(path) : undefined;
    return entry ? unpack(entry, path, bytes, platform, limits, []) : null;
  };
  return {
    files,
    findings,
    read,
    take(path) {
      const content = read(path);
      kept.delete(path);
      return content;
    },
  };
}

/** The names in an archive, and the way to single entries: through the same door, and nothing is unpacked before it is asked for. */
export async function openDirectory(
  name: string,
  given: Uint8Array,
  platform: Platform,
  limits: ArchiveLimits = DEFAULT_LIMITS,
): Promise<{ readonly paths: readonly string[]; readonly read: (path: string) => Uint8Array | null }> {
  const { bytes, located } = await locate(name, given, platform, limits);
  // What systems leave behind in archives is no file of theirs here either.
  const paths = [...located.keys()].filter((path) => !RUBBISH.test(path));
  const known = new Set(paths);
  return {
    paths,
    read(path) {
      const entry = known.has(path) ? located.get(path) : undefined;
      return entry ? unpack(entry, path, bytes, platform, limits, []) : null;
    },
  };
}

/** The entries of an archive that are files, by their safe names, once its directory has been checked. */
async function locate(
  name: string,
  given: Uint8Array,
  platform: Platform,
  limits: ArchiveLimits,
): Promise<{ bytes: Uint8Array; located: Map<string, ZipEntry>; findings: Finding[] }> {
  if (given.length > limits.maxPacked) {
    refuse(
      'archive-too-large',
      { path: name },
      { what: 'packed bytes', found: given.length, limit: limits.maxPacked },
    );
  }
  const { allowance = allowanceFor(given.length, limits) } = limits;
  const listing = await platform
    .listZip(given, allowance.entries + 1)
    .catch((error: Error) => refuse('archive-truncated', { path: name }, { detail: error.message }));
  const { bytes, entries } = listing;
  const findings: Finding[] = [];
  if (listing.surrounded) findings.push(finding('archive-surrounded', 'note', { path: name }));
  checkDirectory(name, entries, bytes.length, limits, allowance);
  const located = new Map<string, ZipEntry>();
  const seen = new Set<string>();
  let backslashes = 0;
  for (const entry of entries) {
    if (entry.name.includes('\\')) backslashes += 1;
    const path = safePath(entry.name, name);
    if (seen.has(path)) refuse('archive-duplicate-name', { path: name }, { name: path });
    seen.add(path);
    if (!path.endsWith('/')) located.set(path, entry);
  }
  if (backslashes > 0)
    findings.push(finding('archive-backslashes', 'note', { path: name }, { count: backslashes }));
  return { bytes, located, findings };
}

/** A single file behind the archive's interface, so that bare files take the same road. */
export function singleFile(name: string, bytes: Uint8Array, platform: Platform): Archive {
  const file = { path: name, bytes: bytes.length, sha256: platform.sha256(bytes) };
  const read = (path: string): Uint8Array | null => (path === name ? bytes : null);
  return { files: new Map([[name, file]]), findings: [], read, take: read };
}

function checkDirectory(
  name: string,
  entries: readonly ZipEntry[],
  length: number,
  limits: ArchiveLimits,
  allowance: Allowance,
): void {
  if (entries.length === 0) refuse('package-empty', { path: name });
  const tooLarge = (what: string, found: number, limit: number): void => {
    if (found > limit) refuse('archive-too-large', { path: name }, { what, found, limit });
  };
  tooLarge('entries', entries.length, allowance.entries);
  let declared = 0;
  const spans: { start: number; end: number; name: string }[] = [];
  for (const entry of entries) {
    if (entry.encrypted) refuse('archive-encrypted', { path: name }, { name: entry.name });
    if (entry.link || entry.localNameDiffers)
      refuse('archive-unsafe-name', { path: name }, { name: entry.name });
    if (entry.dataStart < 0 || entry.dataStart + entry.packed > length) {
      refuse('archive-truncated', { path: name }, { detail: entry.name });
    }
    if (entry.unpacked > limits.ratioFrom && entry.unpacked > entry.packed * limits.maxRatio) {
      refuse(
        'archive-too-large',
        { path: name },
        {
          what: `ratio of ${entry.name}`,
          found: Math.round(entry.unpacked / Math.max(1, entry.packed)),
          limit: limits.maxRatio,
        },
      );
    }
    declared += entry.unpacked;
    spans.push({ start: entry.dataStart, end: entry.dataStart + entry.packed, name: entry.name });
  }
  tooLarge('unpacked bytes', declared, allowance.unpacked);
  allowance.entries -= entries.length;
  allowance.unpacked -= declared;
  spans.sort((a, b) => a.start - b.start);
  for (let at = 1; at < spans.length; at++) {
    if (spans[at]!.start < spans[at - 1]!.end)
      refuse('archive-size-false', { path: name }, { name: spans[at]!.name });
  }
}

/** The entry's name with forward slashes; refuses names that could leave the root. */
function safePath(given: string, archive: string): string {
  const path = given.replace(/\\/gu, '/').normalize('NFC');
  const parts = path.split('/');
  if (
    path === '' ||
    path.startsWith('/') ||
    /^[a-z]:/iu.test(path) ||
    parts.includes('..') ||
    /\p{Cc}/u.test(path)
  ) {
    refuse('archive-unsafe-name', { path: archive }, { name: cut(given, 200) });
  }
  return parts.filter((part, at) => part !== '.' && (part !== '' || at === parts.length - 1)).join('/');
}

function unpack(
  entry: ZipEntry,
  path: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ArchiveLimits,
  findings: Finding[],
): Uint8Array | null {
  const packed = bytes.subarray(entry.dataStart, entry.dataStart + entry.packed);
  let data: Uint8Array | null;
  if (entry.method === 0) data = packed;
  else if (entry.method === 8) {
    try {
      data = platform.inflateRaw(packed, Math.min(entry.unpacked, limits.maxUnpacked) + 1);
    } catch (error) {
      findings.push(finding('archive-crc', 'error', { path }, { detail: (error as Error).message }));
      return null;
    }
  } else {
    findings.push(finding('archive-method', 'error', { path }, { method: entry.method }));
    return null;
  }
  if (data === null || data.length !== entry.unpacked) {
    refuse('archive-size-false', { path }, { name: path });
  }
  if (platform.crc32(data) !== entry.crc32) {
    findings.push(finding('archive-crc', 'error', { path }, { detail: 'CRC-32' }));
    return null;
  }
  return data;
}

function isText(data: Uint8Array): boolean {
  const head = data.subarray(0, 64);
  if ((head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff)) return true;
  return TEXT_START.test(new TextDecoder('latin1').decode(head).replace(/^ï»¿/u, '')) || head[0] === 0x7b;
}
