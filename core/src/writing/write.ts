import { packageFormat, type Target } from '../formats/table.ts';
import { decodeBase64 } from '../model/base64.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import { zipped, type Packer } from './zip.ts';

export interface Written {
  /** One package for each file the target needs, in order. */
  readonly packages: readonly Uint8Array[];
  readonly findings: readonly Finding[];
}

/**
 * Writes a holding in a target format: fit (naming losses), write, zip. Byte-identical for the same input
 * and the same packer.
 */
export function writeHolding(
  holding: Holding,
  target: Target,
  readPackage: (path: string) => Uint8Array | null,
  packer: Packer,
): Written {
  const readFile = withEmbedded(holding, readPackage);
  const { packages, findings } = packageFormat(target).write(holding, target, readFile);
  return { packages: packages.map((entries) => zipped(entries, packer)), findings: findings() };
}

/** What a target cannot say of a holding, without writing anything. */
export const forecast = (holding: Holding, target: Target): readonly Finding[] =>
  packageFormat(target).forecast(holding, target).findings();

/** Files of the source, pictures that stood inside its items, and files that go by another name than they came. */
export function withEmbedded(
  holding: Pick<Holding, 'files'>,
  read: (path: string) => Uint8Array | null,
): (path: string) => Uint8Array | null {
  const embedded = new Map(
    holding.files.flatMap((f) => (f.embedded === undefined ? [] : [[f.path, f.embedded]])),
  );
  const elsewhere = new Map(holding.files.flatMap((f) => (f.from === undefined ? [] : [[f.path, f.from]])));
  return (path) => {
    const base64 = embedded.get(path);
    return base64 === undefined ? read(elsewhere.get(path) ?? path) : decodeBase64(base64);
  };
}
