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
  const empty = /^QTI\s*(?:v?(\d\.\d)\s*)?Package$/iu.exec(manifest?.schema.trim() ?? '');
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
