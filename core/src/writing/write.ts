import type { Zippable } from 'fflate';
import { packageFormat, type Target } from '../formats/table.ts';
import { decodeBase64 } from '../model/base64.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import { zipped } from './zip.ts';

export interface Written {
  /** One package for each file the target needs, in order. */
  readonly packages: readonly Uint8Array[];
  readonly findings: readonly Finding[];
}

/** A fixed date in every entry, so that the same content gives the same bytes. */
const ENTRY_DATE = new Date(2000, 0, 1);

/**
 * Writes a holding in a target format: fit (naming losses), write, zip. Byte-identical for the same input.
 */
export function writeHolding(
  holding: Holding,
  target: Target,
  readPackage: (path: string) => Uint8Array | null,
): Written {
  const readFile = withEmbedded(holding, readPackage);
  const { packages, findings } = packageFormat(target).write(holding, target, readFile);
  return { packages: packages.map(zip), findings };
}

/** What a target cannot say of a holding, without writing anything. */
export const forecast = (holding: Holding, target: Target): readonly Finding[] =>
  packageFormat(target).forecast(holding, target);

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

function zip(entries: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const files: Zippable = Object.create(null) as Zippable;
  for (const [path, content] of entries)
    files[path] = [
      content,
      { level: /\.(?:png|jpe?g|gif|webp|mp3|mp4|zip)$/iu.test(path) ? 0 : 6, mtime: ENTRY_DATE },
    ];
  return zipped(files);
}
