import { DEFAULT_LIMITS, hasZipEnd, looksLikeZip } from '../intake/archive.ts';
import { decode } from '../intake/decode.ts';
import type { Platform } from '../intake/platform.ts';
import { rootOf } from '../intake/rootOf.ts';
import type { Format } from '../model/holding.ts';
import { own } from '../model/own.ts';
import { CARTRIDGE_DOCUMENTS, CARTRIDGE_PACKAGES } from './cartridge/format.ts';
import { CASE_FILES } from './case/format.ts';
import { DOCUMENT_FILES } from './document/format.ts';
import type { Detected, DocumentFormat, FileFormat, FileStart, PackageFormat } from './format.ts';
import { QTI12_DOCUMENTS, QTI12_PACKAGES } from './qti12/format.ts';
import { QTI2_DOCUMENTS, QTI2_PACKAGES } from './qti2/format.ts';
import { TABLE_FILES } from './table/format.ts';

/** Every standard whose documents are read; a further one is a folder and a line here. */
const DOCUMENT_FORMATS: readonly DocumentFormat[] = [QTI12_DOCUMENTS, QTI2_DOCUMENTS, CARTRIDGE_DOCUMENTS];

/** Every kind of file that is no package and no XML; the first that knows one reads it. */
const FILE_FORMATS: readonly FileFormat[] = [CASE_FILES, TABLE_FILES, DOCUMENT_FILES];

/** Every standard that packages are written in. */
const PACKAGE_FORMATS = [QTI12_PACKAGES, QTI2_PACKAGES, CARTRIDGE_PACKAGES] as const;

/** Formats that packages can be written in. */
export const TARGETS = PACKAGE_FORMATS.flatMap((f) => f.targets as readonly Target[]);
export type Target = (typeof PACKAGE_FORMATS)[number]['targets'][number];

/** The format that writes a target. */
export function packageFormat(target: Target): PackageFormat<Target> {
  const found = PACKAGE_FORMATS.find((f) => (f.targets as readonly Target[]).includes(target));
  return found as unknown as PackageFormat<Target>;
}

export interface DetectedDocument extends Detected {
  readonly format: DocumentFormat;
}

/** What an XML document is, by its start; null where no format knows it. */
export function detectDocument(text: string): DetectedDocument | null {
  const root = rootOf(text);
  if (!root) return null;
  for (const format of DOCUMENT_FORMATS) {
    const kind = own(format.roots, root.name);
    if (kind !== undefined) return { format, kind, version: format.version(root.name, root.attributes) };
  }
  return null;
}

/** So many bytes of a file are looked at to know it. */
const HEAD = 4096;

export interface DetectedFile {
  readonly reader: FileFormat;
  readonly format: Format;
}

/** What a file is that is read whole; null for packages and XML. */
export async function detectFile(bytes: Uint8Array, platform: Platform): Promise<DetectedFile | null> {
  const start = await startOf(bytes, platform);
  if (!start) return null;
  for (const reader of FILE_FORMATS) {
    const format = reader.detect(start);
    if (format) return { reader, format };
  }
  return null;
}

/** Null for what is opened as a package: an archive that says nothing of its types. */
async function startOf(bytes: Uint8Array, platform: Platform): Promise<FileStart | null> {
  if (looksLikeZip(bytes)) {
    const listing = await platform.listZip(bytes, DEFAULT_LIMITS.maxEntries).catch(() => null);
    const entries = new Set(listing?.entries.map((e) => e.name) ?? []);
    const parts = entries.has('[Content_Types].xml') || entries.has('META-INF/manifest.xml');
    return parts ? { bytes, entries, head: '', cut: true } : null;
  }
  const head = decode(bytes.subarray(0, HEAD)).text.trimStart();
  const json = head.startsWith('{') || head.startsWith('[');
  return json || !hasZipEnd(bytes) ? { bytes, entries: null, head, cut: bytes.length > HEAD } : null;
}
