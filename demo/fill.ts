import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { demoFiles } from './packages.ts';
import { chapterFiles, untidyExam } from './book/files.ts';
import { publisherBank } from './publisher.ts';

/**
 * Fills a running application with the demo, through the same doors a user has: node --import tsx
 * demo/fill.ts BASE_URL
 */

interface Held {
  readonly id: string;
  readonly state: string;
}

export async function bring(
  base: string,
  name: string,
  bytes: Uint8Array,
): Promise<{ id: string; known: boolean }> {
  const response = await fetch(`${base}/api/packages?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', Origin: base },
    body: new Uint8Array(bytes),
  });
  if (!response.ok) throw new Error(`${name}: ${response.status} ${await response.text()}`);
  const { package: held, known } = (await response.json()) as { package: Held; known: boolean };
  return { id: held.id, known };
}

/** Waits until a condition on the application holds. */
export async function until(what: string, holds: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 1500; tries++) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error(`${what} did not happen within five minutes`);
}

async function settled(base: string): Promise<boolean> {
  const all = (await (await fetch(`${base}/api/packages`)).json()) as Held[];
  return all.every((p) => p.state !== 'reading');
}

const post = (address: string, fields: Record<string, string>): Promise<Response> =>
  fetch(address, {
    method: 'POST',
    body: new URLSearchParams(fields),
    redirect: 'manual',
    headers: { Accept: 'text/html', Origin: new URL(address).origin },
  });

/** Brings every demo file in, and makes one transfer whose export has come back altered. */
export async function fill(base: string): Promise<{ transfer: string | null }> {
  const ids = new Map<string, { id: string; known: boolean }>();
  await bring(base, 'chartwork-resit.docx', await untidyExam());
  for (const { name, bytes } of demoFiles().reverse()) ids.set(name, await bring(base, name, bytes));
  await until('reading', () => settled(base));
  const source = ids.get('pilotage-week5.imscc')!;
  if (source.known) return { transfer: null };
  const started = await post(`${base}/transfers?/start`, { package: source.id });
  const transfer = /\/transfers\/([\w-]+)/u.exec(started.headers.get('location') ?? '')?.[1];
  if (!transfer) throw new Error(`the transfer did not start: ${started.status} ${await started.text()}`);
  await send(`${base}/api/transfers/${transfer}/do`, 'POST', { do: 'send' });
  await until(
    'writing',
    async () => (await fetch(`${base}/transfers/${transfer}/package`, { method: 'HEAD' })).ok,
  );
  await fetch(`${base}/api/transfers/${transfer}/arrive`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: base },
    body: JSON.stringify({ packageId: ids.get('pilotage-came-back.imscc')!.id }),
  });
  await until(
    'comparing',
    async () =>
      (
        (await (await fetch(`${base}/transfers/${transfer}/receipt.json`)).json()) as {
          verdict?: string | null;
        }
      ).verdict != null,
  );
  return { transfer };
}

const send = async <T>(address: string, method: string, body: unknown): Promise<T> => {
  const response = await fetch(address, {
    method,
    headers: { 'Content-Type': 'application/json', Origin: new URL(address).origin },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${address}: ${response.status} ${await response.text()}`);
  return (await response.json()) as T;
};

interface Standins {
  readonly quayside: string;
  readonly foreshore: string;
  /** A publisher's library. */
  readonly library?: string;
}
interface Course {
  readonly id: string;
}

/** Connects both simulated systems with the coordinator's token; gives a way to name their courses. */
export async function connectSystems(base: string, at: Standins): Promise<(classId: string) => string> {
  for (const address of [at.quayside, at.foreshore])
    await send(`${base}/api/systems`, 'POST', { address, token: 'demo-coordinator' });
  let courses: Course[] = [];
  await until('looking at the systems', async () => {
    courses = (await (await fetch(`${base}/api/courses`)).json()) as Course[];
    return ['k-tides-a26', 'f-pilot-a26'].every((id) => courses.some((c) => c.id.endsWith(`:${id}`)));
  });
  return (classId) => courses.find((c) => c.id.endsWith(`:${classId}`))!.id;
}

interface Thing {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
}

interface Taken {
  readonly snapshot: { readonly id: string; readonly outline: { readonly things: Thing[] } } | null;
  readonly state: string | null;
}
const taken = async (address: string): Promise<Taken> => (await (await fetch(address)).json()) as Taken;

/** Looks into a course and gives what its outline lists, once it has been read. */
export async function lookInto(base: string, course: string): Promise<Thing[]> {
  const address = `${base}/api/courses/${encodeURIComponent(course)}/snapshot`;
  const before = await taken(address);
  await send(address, 'POST', {});
  let things: Thing[] = [];
  await until('looking into a course', async () => {
    const now = await taken(address);
    things = now.snapshot?.outline.things ?? [];
    return now.state === 'ready' && now.snapshot?.id !== before.snapshot?.id;
  });
  return things;
}

/**
 * Makes a transfer between courses with the things of these names, sends it, and waits for its arrival check.
 */
export async function carryAcross(
  base: string,
  from: string,
  to: string,
  takes: (thing: Thing) => boolean,
): Promise<string> {
  const things = await lookInto(base, from);
  await lookInto(base, to);
  const ticks = things.filter(takes).map((t) => ({ kind: t.kind, nodeId: t.id }));
  const { id } = await send<{ id: string }>(`${base}/api/transfers`, 'POST', {
    from: { courseId: from },
    to,
    ticks,
  });
  const state = async () =>
    (await (await fetch(`${base}/api/transfers/${id}`)).json()) as {
      plan: unknown;
      running: boolean;
      sending: { endedAt: number | null } | null;
    };
  await until('planning', async () => (await state()).plan !== null);
  await send(`${base}/api/transfers/${id}/do`, 'POST', { do: 'send' });
  await until('sending', async () => {
    const { running, sending } = await state();
    return !running && sending?.endedAt != null;
  });
  return id;
}

/** Connects the systems and makes one transfer between courses whose destination has habits of its own. */
export async function fillCourses(base: string, at: Standins): Promise<string> {
  await send(`${at.foreshore}/habits`, 'PUT', {
    landsByPosition: true,
    equalDates: true,
    dropsTolerance: true,
  });
  const course = await connectSystems(base, at);
  if (at.library) await send(`${base}/api/libraries`, 'POST', { address: at.library, token: 'demo-library' });
  // A course that holds a rubric, so that it is listed with what it grades.
  await lookInto(base, course('k-coast-s26'));
  return carryAcross(base, course('f-pilot-s26'), course('f-pilot-a26'), (t) => t.kind === 'quiz');
}

if (process.argv[1]?.endsWith('fill.ts')) {
  const folder = 'data/demo-packages';
  await mkdir(folder, { recursive: true });
  for (const file of demoFiles()) await writeFile(join(folder, file.name), file.bytes);
  await writeFile(join(folder, 'publisher-bank.zip'), publisherBank());
  await writeFile(join(folder, 'chartwork-resit.docx'), await untidyExam());
  const book = join(folder, 'coastal-pilotage');
  await mkdir(book, { recursive: true });
  for (const file of await chapterFiles()) await writeFile(join(book, file.name), file.bytes);
  const [, , base = 'http://127.0.0.1:4173', quayside, foreshore, library] = process.argv;
  const { transfer } = await fill(base);
  if (transfer && quayside && foreshore)
    await fillCourses(base, { quayside, foreshore, ...(library ? { library } : {}) });
  process.stdout.write(transfer ? 'The demo data is in.\n' : 'The demo data was in already.\n');
}
