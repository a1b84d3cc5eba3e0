import { zipSync, type Zippable } from 'fflate';
import { fitQti12 } from '../fit/qti12.ts';
import {
  seriesFindings,
  seriesOf,
  writeCartridge,
  type CartridgeVersion,
} from '../formats/cartridge/write.ts';
import { writeQti12Package } from '../formats/qti12/writePackage.ts';
import { fitQti2 } from '../fit/qti2.ts';
import { writeQti2 } from '../formats/qti2/write.ts';
import { decodeBase64 } from '../intake/base64.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';

/** Formats that packages can be written in. */
export const TARGETS = ['qti1.2', 'qti2.1', 'qti2.2', 'qti3.0', 'cc1.1', 'cc1.2', 'cc1.3'] as const;
export type Target = (typeof TARGETS)[number];
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
  switch (target) {
    case 'qti2.1':
    case 'qti2.2':
    case 'qti3.0': {
      const version = versionOf(target);
      const fitted = fitQti2(holding, version);
      const { entries, findings } = writeQti2(fitted.holding, version, readFile);
      return { packages: [zip(entries)], findings: [...fitted.findings, ...findings] };
    }
    case 'qti1.2': {
      const fitted = fitQti12(holding, 'plain');
      const { entries, findings } = writeQti12Package(fitted.holding, fitted.items, readFile);
      return { packages: [zip(entries)], findings: [...fitted.findings, ...findings] };
    }
    case 'cc1.1':
    case 'cc1.2':
    case 'cc1.3': {
      const version = target.slice('cc'.length) as CartridgeVersion;
      const fitted = fitQti12(holding, 'cartridge');
      const series = seriesOf(fitted.holding);
      const written = series.map((one) =>
        writeCartridge(one.holding, fitted.items, one.bank, version, readFile),
      );
      return {
        packages: written.map((w) => zip(w.entries)),
        findings: [
          ...fitted.findings,
          ...seriesFindings(fitted.holding, series),
          ...written.flatMap((w) => w.findings),
        ],
      };
    }
  }
}

/** What a target cannot say of a holding, without writing anything. */
export function forecast(holding: Holding, target: Target): readonly Finding[] {
  if (isQti2(target)) return fitQti2(holding, versionOf(target)).findings;
  const fitted = fitQti12(holding, target === 'qti1.2' ? 'plain' : 'cartridge');
  return target === 'qti1.2'
    ? fitted.findings
    : [...fitted.findings, ...seriesFindings(fitted.holding, seriesOf(fitted.holding))];
}

const isQti2 = (target: Target): target is 'qti2.1' | 'qti2.2' | 'qti3.0' => /^qti[23]/u.test(target);
const versionOf = (target: 'qti2.1' | 'qti2.2' | 'qti3.0') =>
  target.slice('qti'.length) as '2.1' | '2.2' | '3.0';

/** Files of the source, and pictures that stood inside its items. */
export function withEmbedded(
  holding: Pick<Holding, 'files'>,
  read: (path: string) => Uint8Array | null,
): (path: string) => Uint8Array | null {
  const embedded = new Map(
    holding.files.flatMap((f) => (f.embedded === undefined ? [] : [[f.path, f.embedded]])),
  );
  return (path) => {
    const base64 = embedded.get(path);
    return base64 === undefined ? read(path) : decodeBase64(base64);
  };
}

function zip(entries: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const files: Zippable = Object.create(null) as Zippable;
  for (const [path, content] of entries)
    files[path] = [
      content,
      { level: /\.(?:png|jpe?g|gif|webp|mp3|mp4|zip)$/iu.test(path) ? 0 : 6, mtime: ENTRY_DATE },
    ];
  return zipSync(files);
}
