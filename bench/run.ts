import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir, totalmem } from 'node:os';
import { join } from 'node:path';
import { bundle } from './bundle.ts';

/**
 * Ratios against the raw cost of the same bytes, each part measured in a process of its own:
 * node --import tsx bench/run.ts [--json] [SIZES…]
 */
const given = process.argv
  .slice(2)
  .filter((a) => /^\d+$/u.test(a))
  .map(Number);
const sizes = given.length > 0 ? given : [1000, 10_000, 100_000];
const FORMATS = ['1.2', '2.1'] as const;

interface Reading {
  readonly items: number;
  readonly unpackedBytes: number;
  readonly rawMs: number;
  readonly readMs: number;
  readonly compareMs: number;
  readonly probes: number;
  readonly probeMs: number;
  /** An item's. */
  readonly recogniseMicroseconds: number;
}

interface Using {
  readonly editMs: number;
  /** Item runs of 10,000 simulated candidates on a quiz of 60, both sides. */
  readonly candidateRuns: number;
  readonly candidateMs: number;
  /** A quiz drawing from all items, put together and looked at once. */
  readonly makerMs: number;
}

type Format = (typeof FORMATS)[number];
type Figures = Reading & {
  readonly format: Format;
  readonly peakBytes: number;
  /** The same where items lie packed. */
  readonly heldBytes: number;
  readonly using: Using | null;
};

/** Room for young objects as in a server that has time to spare; memory is measured as a worker has it. */
const ROOMY = ['--max-semi-space-size=64', '--max-old-space-size=8192'];

function run<T>(script: string, ...args: string[]): T {
  const child = spawnSync(
    process.execPath,
    ['--expose-gc', ...(script === 'memory' ? [] : ROOMY), `build/bench/${script}.js`, ...args],
    { encoding: 'utf8', maxBuffer: 1 << 26 },
  );
  if (child.status !== 0) throw new Error(child.stderr);
  return (child.stdout === '' ? null : JSON.parse(child.stdout)) as T;
}

function measure(items: number, format: Format, folder: string): Figures {
  const path = join(folder, `${format}-${items}.zip`);
  run('package', String(items), format, path);
  const reading = run<Reading>('reading', path);
  if (reading.items !== items) throw new Error(`${reading.items} of ${items} items were read`);
  const grown = (...how: string[]): number => run<{ peakBytes: number }>('memory', path, ...how).peakBytes;
  const [peakBytes, heldBytes] = [grown(), grown('held')];
  const using = format === '1.2' ? run<Using>('using', path) : null;
  rmSync(path);
  return { ...reading, format, peakBytes, heldBytes, using };
}

await bundle('package', 'reading', 'memory', 'using');
const folder = mkdtempSync(join(tmpdir(), 'alforja-bench-'));
const all: Figures[] = [];
try {
  for (const format of FORMATS) for (const items of sizes) all.push(measure(items, format, folder));
} finally {
  rmSync(folder, { recursive: true, force: true });
}

const ratio = (n: number): string => n.toFixed(2);
const perSecond = (n: number, ms: number): string => `${((n / ms) * 1e-3).toFixed(2)} million`;
const row = (cells: readonly (string | number)[]): string => `| ${cells.join(' | ')} |\n`;
const table = (heads: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  row(heads) + row(heads.map(() => '---:')) + rows.map(row).join('');

if (process.argv.includes('--json')) process.stdout.write(`${JSON.stringify(all, null, 2)}\n`);
else {
  process.stdout.write(
    `Node ${process.version}, ${cpus().length} x ${cpus()[0]?.model}, ${Math.round(totalmem() / 2 ** 30)} GiB\n\n`,
  );
  process.stdout.write(
    table(
      [
        'QTI',
        'items',
        'unpacked',
        'raw per item',
        'read / raw',
        'read per item',
        'compare / read',
        'peak memory / unpacked',
        'with items held',
        'probes per second',
        'recognising an item',
      ],
      all.map((f) => [
        f.format,
        f.items,
        `${(f.unpackedBytes / 1e6).toFixed(1)} MB`,
        `${((1000 * f.rawMs) / f.items).toFixed(0)} µs`,
        ratio(f.readMs / f.rawMs),
        `${((1000 * f.readMs) / f.items).toFixed(0)} µs`,
        ratio(f.compareMs / f.readMs),
        ratio(f.peakBytes / f.unpackedBytes),
        ratio(f.heldBytes / f.unpackedBytes),
        perSecond(f.probes, f.probeMs),
        `${f.recogniseMicroseconds.toFixed(0)} µs`,
      ]),
    ),
  );
  process.stdout.write('\n');
  process.stdout.write(
    table(
      ['items', 'an edit each / read', 'item runs of candidates per second', 'weighing a draw of all / raw'],
      all.flatMap(({ items, readMs, rawMs, using }) =>
        using
          ? [
              [
                items,
                ratio(using.editMs / readMs),
                perSecond(using.candidateRuns, using.candidateMs),
                ratio(using.makerMs / rawMs),
              ],
            ]
          : [],
      ),
    ),
  );
}
