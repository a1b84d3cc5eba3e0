import { cpus, totalmem } from 'node:os';
import { spawnSync } from 'node:child_process';
import { bundle } from './bundle.ts';

/**
 * Ratios against the raw cost of the same bytes, each measured in a process of its own:
 * node --import tsx bench/run.ts [--json] [SIZES…]
 */
const sizes = process.argv
  .slice(2)
  .filter((a) => /^\d+$/u.test(a))
  .map(Number);
const json = process.argv.includes('--json');

export interface Figures {
  readonly items: number;
  readonly unpackedBytes: number;
  readonly rawMs: number;
  readonly readMs: number;
  readonly compareMs: number;
  readonly editMs: number;
  readonly probes: number;
  readonly probeMs: number;
  /** Item runs of 10,000 simulated candidates on a quiz of 60, both sides. */
  readonly candidateRuns: number;
  readonly candidateMs: number;
  /** A quiz drawing from all items, put together and looked at once. */
  readonly makerMs: number;
  readonly peakBytes: number;
}

function measure(items: number): Figures {
  const child = spawnSync(
    process.execPath,
    ['--expose-gc', '--max-semi-space-size=64', 'build/bench/measure.js', String(items)],
    {
      encoding: 'utf8',
      maxBuffer: 1 << 26,
    },
  );
  if (child.status !== 0) throw new Error(child.stderr);
  return JSON.parse(child.stdout) as Figures;
}

await bundle('measure');

const all = (sizes.length > 0 ? sizes : [1000, 10_000, 100_000]).map(measure);
const ratio = (n: number): string => n.toFixed(2);

if (json) process.stdout.write(`${JSON.stringify(all, null, 2)}\n`);
else {
  process.stdout.write(
    `Node ${process.version}, ${cpus().length} x ${cpus()[0]?.model}, ${Math.round(totalmem() / 2 ** 30)} GiB\n\n`,
  );
  process.stdout.write(
    '| items | unpacked | read / raw | compare / read | an edit each / read | peak memory / unpacked | read per item | probes per second | item runs of candidates per second | weighing a draw of all / raw |\n',
  );
  process.stdout.write('|---:|---:|---:|---:|---:|---:|---:|---:|---:|---:|\n');
  for (const f of all) {
    process.stdout.write(
      `| ${f.items} | ${(f.unpackedBytes / 1e6).toFixed(1)} MB | ${ratio(f.readMs / f.rawMs)} | ${ratio(f.compareMs / f.readMs)} | ${ratio(f.editMs / f.readMs)} | ${ratio(f.peakBytes / f.unpackedBytes)} | ${((1000 * f.readMs) / f.items).toFixed(0)} µs | ${Math.round((1000 * f.probes) / f.probeMs)} | ${Math.round((1000 * f.candidateRuns) / f.candidateMs)} | ${ratio(f.makerMs / f.rawMs)} |\n`,
    );
  }
}
