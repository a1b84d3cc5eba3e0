import { monitorEventLoopDelay } from 'node:perf_hooks';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ReadInput } from '../src/lib/server/work/reading.ts';
import { HOSTILE, type Hostile } from '../tests/hostile/all.ts';

/**
 * What hostile files cost: node --import tsx scripts/reliability.ts [words of a name]. Each is read in a thread as the
 * application reads it, and the longest that the main thread was held meanwhile is measured.
 */
const data = mkdtempSync(join(tmpdir(), 'alforja-hostile-'));
process.env['ALFORJA_DATA'] = data;
process.on('exit', () => rmSync(data, { recursive: true, force: true }));
const { openStore } = await import('../src/lib/server/store/open.ts');
const { closeThreads, inThread } = await import('../src/lib/server/runner/threads.ts');
const { storeBytes } = await import('../src/lib/server/store/files.ts');
const { JobFailure } = await import('../src/lib/server/runner/handler.ts');
await openStore();

const wanted = process.argv[2] ?? '';
console.log('| file | bytes | came to | seconds | memory, MB | main thread held, ms |');
console.log('|---|---:|---|---:|---:|---:|');
for (const hostile of HOSTILE.filter((h) => h.name.includes(wanted))) console.log(await lineOf(hostile));
await closeThreads();

/** What is asked of a thread to have a stored file read, with nothing known beside it. */
function readingOf(sha256: string, name: string): ReadInput {
  return {
    ...{ sha256, name, rules: [], layouts: [], known: [], layer: [], steps: [] },
    reading: { id: sha256, packageId: sha256, jobId: null },
  };
}

async function lineOf({ name, file, make }: Hostile): Promise<string> {
  const bytes = make();
  const { sha256 } = await storeBytes(bytes);
  const delay = monitorEventLoopDelay({ resolution: 1 });
  const from = performance.now();
  delay.enable();
  const came = await inThread(
    { kind: 'read', asked: readingOf(sha256, file) },
    () => undefined,
    new AbortController().signal,
  ).then(
    ({ summary }) => `${summary.items} items`,
    (error: unknown) => (error instanceof JobFailure ? error.finding.code : String(error)),
  );
  delay.disable();
  const seconds = ((performance.now() - from) / 1000).toFixed(2);
  const memory = Math.round(process.memoryUsage().rss / 2 ** 20);
  await closeThreads();
  return `| ${name} | ${bytes.length} | ${came} | ${seconds} | ${memory} | ${(delay.max / 1e6).toFixed(0)} |`;
}
