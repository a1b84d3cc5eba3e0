import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { HOSTILE } from '../tests/hostile/all.ts';
import { startServer } from './server.mjs';

/**
 * How long the front page takes while each hostile file is read by the built application, and while its pages are
 * opened after that: node --import tsx scripts/frontPage.ts [words of a name].
 */
const PORT = 4295;
const EVERY_MS = 25;
const IDLE_ASKED = 200;
const LONGEST_MS = 60_000;
/** What is refused at once is followed for a while, too. */
const LEAST_ASKED = 40;
const data = mkdtempSync(join(tmpdir(), 'alforja-front-'));
const { child, base } = await startServer({ port: PORT, data, quiet: true });

/** Asks for the front page over and over. @returns how long each took, in ms, the shortest first */
async function asked(until: (asked: number) => Promise<boolean>): Promise<number[]> {
  const took: number[] = [];
  do {
    const from = performance.now();
    await (await fetch(base)).text();
    took.push(performance.now() - from);
    await wait(EVERY_MS);
  } while (!(await until(took.length)));
  return took.sort((a, b) => a - b);
}
const p95 = (took: readonly number[]): number =>
  took[Math.min(took.length - 1, Math.ceil(took.length * 0.95) - 1)]!;

/** Where what was read is seen. */
const PAGES = (id: string): string[] => [
  ...['', '/sheet', '/file?path=x'].map((page) => `/packages/${id}${page}`),
  ...['rows', 'items/0', 'items/0/whole', 'found?q=a', 'names?at=0,1', 'edits', 'sheet'].map(
    (part) => `/api/packages/${id}/${part}`,
  ),
  ...['/packages', '/rubrics', '/banks', '/quizzes', '/transfers', '/api/find?q=light'],
];

/** Opens every page that shows a package. @returns the longest that the front page took meanwhile, and the largest */
async function opened(
  id: string,
): Promise<{ longest: number; page: string; kilobytes: number; seconds: number }> {
  const out = { longest: 0, page: '', kilobytes: 0, seconds: 0 };
  for (const page of PAGES(id)) {
    let done = false;
    const front = asked(async () => done);
    const from = performance.now();
    const bytes = (await (await fetch(base + page)).arrayBuffer()).byteLength;
    out.seconds = Math.max(out.seconds, (performance.now() - from) / 1000);
    out.kilobytes = Math.max(out.kilobytes, bytes / 1024);
    done = true;
    const longest = (await front).at(-1)!;
    if (longest > out.longest) Object.assign(out, { longest, page: page.replace(id, '…') });
  }
  return out;
}

const stateOf = async (id: string): Promise<string> => {
  const all = (await (await fetch(`${base}/api/packages`)).json()) as { id: string; state: string }[];
  return all.find((p) => p.id === id)?.state ?? 'gone';
};

try {
  // The first pages load what later ones have at hand.
  await asked(async (times) => times >= 30);
  const idle = p95(await asked(async (times) => times >= IDLE_ASKED));
  const allowed = Math.max(200, 3 * idle);
  console.log(`Idle: ${idle.toFixed(1)} ms of ${IDLE_ASKED}; allowed: ${allowed.toFixed(0)} ms.\n`);
  console.log(
    '| file | 95 % within while it is read, ms | asked | longest while it is opened, ms | at | largest answer, kB | slowest, s |',
  );
  console.log('|---|---:|---:|---:|---|---:|---:|');
  let beyond = 0;
  for (const { name, file, make } of HOSTILE.filter((h) => h.name.includes(process.argv[2] ?? ''))) {
    const bytes = new Uint8Array(make());
    // Making it may have taken so long that the connection was closed meanwhile: that is noticed first.
    await wait(100);
    const response = await fetch(`${base}/api/packages?name=${encodeURIComponent(file)}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream', Origin: base },
      body: bytes,
    });
    if (!response.ok) {
      console.log(`| ${name} | refused (${response.status}) | | | | | |`);
      continue;
    }
    const { package: held } = (await response.json()) as { package: { id: string } };
    const from = performance.now();
    const took = await asked(
      async (times) =>
        performance.now() - from > LONGEST_MS ||
        (times >= LEAST_ASKED && (await stateOf(held.id)) !== 'reading'),
    );
    const { longest, page, kilobytes, seconds } = await opened(held.id);
    beyond += p95(took) > allowed || longest > allowed ? 1 : 0;
    console.log(
      `| ${name} | ${p95(took).toFixed(1)} | ${took.length} | ${longest.toFixed(0)} | ${page} | ${kilobytes.toFixed(0)} | ${seconds.toFixed(2)} |`,
    );
  }
  console.log(`\nBeyond what is allowed: ${beyond}.`);
  process.exitCode = beyond > 0 ? 1 : 0;
} finally {
  child.kill('SIGKILL');
  rmSync(data, { recursive: true, force: true });
}
