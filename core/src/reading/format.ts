import Papa from 'papaparse';
import { hasZipEnd, looksLikeZip } from '../intake/archive.ts';
import type { Platform } from '../intake/platform.ts';
import { decode } from '../intake/decode.ts';
import type { Format } from '../model/holding.ts';
import type { OpenPackage } from './open.ts';

const CARTRIDGE_VERSION = /imsccv1p(\d)|\/imscc\/|Common Cartridge/iu;

/** The format of an opened package, by its namespaces and roots; the schema it names only breaks ties. */
export function formatOf(opened: OpenPackage): Format {
  const { manifest } = opened;
  const container = opened.fromZip ? 'zip' : 'xml';
  if (
    manifest &&
    (CARTRIDGE_VERSION.test(manifest.namespace) || /Common Cartridge/iu.test(manifest.schema))
  ) {
    return {
      container: 'zip',
      standard: 'common-cartridge',
      version: cartridgeVersion(manifest.namespace, manifest.schemaVersion),
    };
  }
  const versions = opened.documents
    .filter((d) => d.detected.format.namesPackage)
    .map((d) => d.detected.version);
  if (versions.length > 0) return { container, standard: 'qti', version: versions[0] ?? null };
  // A package that says it is QTI and holds nothing yet is one all the same.
  const empty = /^QTI\s*(?:v?(\d\.\d))?\s*Package$/iu.exec(manifest?.schema.trim() ?? '');
  if (empty && opened.documents.length === 0)
    return { container, standard: 'qti', version: empty[1] ?? (manifest!.schemaVersion.slice(0, 3) || null) };
  const [inner] = opened.inner;
  if (inner) return { ...formatOf(inner), container: 'zip' };
  return { container, standard: 'unknown', version: null };
}

function cartridgeVersion(namespace: string, schemaVersion: string): string {
  const found = /imsccv1p(\d)/u.exec(namespace);
  if (found) return `1.${found[1]}`;
  if (namespace.includes('/imscc/')) return '1.0';
  return schemaVersion.split('.').slice(0, 2).join('.') || '1.0';
}

/** Formats that are told apart before anything is opened as a package; null for packages and XML. */
export async function otherFormat(bytes: Uint8Array, platform: Platform): Promise<Format | null> {
  if (looksLikeZip(bytes)) {
    const listing = await platform.listZip(bytes).catch(() => null);
    const names = new Set(listing?.entries.map((e) => e.name) ?? []);
    if (!names.has('[Content_Types].xml')) return null;
    if (names.has('xl/workbook.xml')) return { container: 'xlsx', standard: 'table', version: null };
    if (names.has('word/document.xml')) return { container: 'docx', standard: 'text', version: null };
    return null;
  }
  const head = decode(bytes.subarray(0, HEAD)).text.trimStart();
  if (head.startsWith('<')) return null;
  if (head.startsWith('{') || head.startsWith('[')) {
    const isCase = /"CF(?:Document|Rubrics|Rubric|Package)"|"CFRubricCriteria"/u.test(
      decode(bytes).text.slice(0, 200_000),
    );
    return { container: 'json', standard: isCase ? 'case' : 'unknown', version: isCase ? '1.0' : null };
  }
  if (hasZipEnd(bytes)) return null;
  const table = namesCriteria(head) || isEven(head, bytes.length > HEAD);
  return { container: table ? 'csv' : 'text', standard: table ? 'table' : 'unknown', version: null };
}

const HEAD = 4096;

/** A row that names a criterion; it may stand below a title. */
const namesCriteria = (head: string): boolean =>
  head
    .split(/\r?\n/u)
    .slice(0, 10)
    .some((l) => /criteri(?:on|a)|aspect/iu.test(l) && /[,;\t|]/u.test(l));

/** Rows of as many cells each, three or more: a table, whatever its header says. */
function isEven(head: string, cut: boolean): boolean {
  return [';', '\t', ','].some((delimiter) => {
    const { data } = Papa.parse<string[]>(head, { delimiter, skipEmptyLines: 'greedy', preview: 12 });
    const rows = cut ? data.slice(0, -1) : data;
    return rows.length > 1 && rows[0]!.length > 2 && rows.every((r) => r.length === rows[0]!.length);
  });
}
