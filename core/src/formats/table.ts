import { rootOf } from '../intake/rootOf.ts';
import { own } from '../model/own.ts';
import { CARTRIDGE_DOCUMENTS, CARTRIDGE_PACKAGES } from './cartridge/format.ts';
import type { Detected, DocumentFormat, PackageFormat } from './format.ts';
import { QTI12_DOCUMENTS, QTI12_PACKAGES } from './qti12/format.ts';
import { QTI2_DOCUMENTS, QTI2_PACKAGES } from './qti2/format.ts';

/** Every standard whose documents are read; a further one is a folder and a line here. */
const DOCUMENT_FORMATS: readonly DocumentFormat[] = [QTI12_DOCUMENTS, QTI2_DOCUMENTS, CARTRIDGE_DOCUMENTS];

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
