import { setTimeout as wait } from 'node:timers/promises';
import { bringing, editing, looking, moving, undoing, type Act, type Wrong } from './acts.ts';
import type { World } from './world.ts';

/** Kills the application at moments drawn from a seed while it works, and holds it to what it said it took. */

/** Numbers from 0 to 1 that are the same for the same seed (mulberry32, common practice). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

export interface Tally {
  kills: number;
  /** Kills after which the application came up again by itself and brought everything to rest. */
  survived: number;
  readonly lost: string[];
  readonly doubled: string[];
  readonly stuck: string[];
}
export const emptyTally = (): Tally => ({ kills: 0, survived: 0, lost: [], doubled: [], stuck: [] });

const LONGEST_MS = 1400;
const PATIENCE_MS = 90_000;
const PAIRS_EACH = 2;

/** Asks for something, and notes whether the application said that it took it. */
const asked = (act: Act, base: string): Promise<void> =>
  act.ask(base).then(
    () => void (act.taken = true),
    // No answer came, or a part of one: it may have been taken, or not.
    () => undefined,
  );

/** Waits until nothing is under way. @returns what still is */
export async function atRest(world: World): Promise<string[]> {
  let open: string[] = [];
  for (const from = performance.now(); performance.now() - from < PATIENCE_MS; await wait(100)) {
    const rows = await world.rows(
      `SELECT kind, state, attempts FROM jobs WHERE state IN ('queued', 'running')`,
    );
    open = rows.map(
      (r) => `${String(r['kind'])} ${String(r['state'])}, ${String(r['attempts'])} times begun`,
    );
    if (open.length === 0) return [];
  }
  return open;
}

/** What has to hold of any data folder that is at rest. */
async function inOrder(world: World): Promise<string[]> {
  const none: readonly [string, string][] = [
    ['a package that is being read by nobody', `SELECT id FROM packages WHERE state = 'reading'`],
    ['a job that failed', `SELECT failure FROM jobs WHERE state = 'failed'`],
    [
      'items of a reading that no package is shown by',
      'SELECT DISTINCT reading_id FROM items WHERE reading_id NOT IN (SELECT reading_id FROM packages WHERE reading_id IS NOT NULL)',
    ],
    ['a job that somebody still owns', `SELECT id FROM jobs WHERE owner IS NOT NULL AND state <> 'running'`],
    ['a damaged page', `SELECT * FROM pragma_integrity_check WHERE integrity_check <> 'ok'`],
  ];
  const out: string[] = [];
  for (const [what, sql] of none)
    for (const row of await world.rows(sql)) out.push(`${what}: ${JSON.stringify(row)}`);
  return out;
}

/** What a round does: something of each kind, in an order of its own. */
async function actsOf(world: World, round: number, draw: () => number): Promise<Act[]> {
  const first = round * PAIRS_EACH;
  const acts: Act[] = [
    bringing(world),
    moving(world, [first, first + 1]),
    await looking(world, 'k-tides-s26'),
  ];
  const undo = round === 0 ? null : await undoing(world, first - 1);
  if (undo) acts.push(undo);
  const [held] = await world.rows(
    `SELECT id FROM packages WHERE name LIKE 'marks-%' AND state = 'ready' LIMIT 1`,
  );
  if (held) acts.push(editing(world, String(held['id']), `q${round % 40}`));
  return acts
    .map((act) => ({ act, at: draw() }))
    .sort((a, b) => a.at - b.at)
    .map(({ act }) => act);
}

/**
 * One round: people ask for things, and the application is killed several times before it has come to rest.
 * @param kills fewer than make a job give up
 */
export async function round(
  world: World,
  at: number,
  draw: () => number,
  kills: number,
  tally: Tally,
): Promise<void> {
  const acts = await actsOf(world, at, draw);
  const port = world.ports[0]!;
  const share = Math.ceil(acts.length / kills);
  for (let n = 0; n < kills; n++) {
    const now = acts.slice(n * share, (n + 1) * share).map((act) => asked(act, world.base()));
    await wait(draw() * LONGEST_MS);
    await world.stop(port, 'SIGKILL');
    tally.kills += 1;
    await Promise.all(now);
    await world.start(port);
    await Promise.all(
      acts
        .slice(0, (n + 1) * share)
        .filter((a) => a.again && !a.taken)
        .map((act) => asked(act, world.base())),
    );
  }
  const before = tally.lost.length + tally.doubled.length + tally.stuck.length;
  tally.stuck.push(...(await atRest(world)));
  tally.lost.push(...(await inOrder(world)));
  const wrong: Wrong[] = (await Promise.all(acts.map((act) => act.wrong()))).flat();
  for (const { as, what } of wrong) tally[as].push(what);
  if (world.fallen.length > 0) tally.stuck.push('the application has ended by itself');
  if (tally.lost.length + tally.doubled.length + tally.stuck.length === before) tally.survived += kills;
}

/** @param rounds of three kills each */
export async function killed(world: World, seed: number, rounds: number, kills = 3): Promise<Tally> {
  const draw = chance(seed);
  const tally = emptyTally();
  for (let at = 0; at < rounds; at++) await round(world, at, draw, kills, tally);
  return tally;
}

const PAUSE_MS = 400;
/** Before one of two processes is told to end. */
const BETWEEN_MS = 1600;
/** Things asked for between one restart and the next, at most: on a slow machine that takes its time. */
const ASKED_BETWEEN = 20;

/**
 * Two processes work on one folder side by side while people ask for things at either, and each is told to end and
 * started again in turn, as a rolling restart does. Each job is to be run once, and nobody is to be refused.
 * @param restarts how many there are
 */
export async function sideBySide(
  world: World,
  seed: number,
  restarts: number,
): Promise<Tally & { asked: number }> {
  const draw = chance(seed);
  const [one, other] = world.ports as [number, number];
  await world.start(other);
  const tally = emptyTally();
  const acts: Act[] = [];
  const refused: string[] = [];
  const ask = async (act: Act, port: number): Promise<void> => {
    acts.push(act);
    await act.ask(world.base(port)).then(
      () => void (act.taken = true),
      (error: Error) => refused.push(`${act.what} at ${port}: ${error.message}`),
    );
  };
  let pair = 0;
  let up = [one, other];
  let over = false;
  const rolling = (async () => {
    for (let n = 0; n < restarts; n++) {
      await wait(BETWEEN_MS);
      const port = [one, other][n % 2]!;
      up = up.filter((p) => p !== port);
      // What was asked of it before it was told to end is still answered.
      await wait(PAUSE_MS);
      const before = performance.now();
      const ended = await world.stop(port, 'SIGTERM');
      const took = performance.now() - before;
      if (ended !== 0 || took > MOST_TO_END_MS)
        tally.stuck.push(`ended with ${String(ended)} after ${Math.round(took)} ms`);
      tally.kills += 1;
      await world.start(port);
      up = [one, other];
    }
  })().finally(() => (over = true));
  const asking: Promise<void>[] = [];
  while (!over) {
    await wait(draw() * PAUSE_MS);
    if (acts.length >= (tally.kills + 1) * ASKED_BETWEEN) continue;
    const port = up[Math.floor(draw() * up.length)]!;
    asking.push(ask(bringing(world), port));
    if (pair < world.pairs && draw() < 0.3) asking.push(ask(moving(world, [pair++]), port));
  }
  await Promise.all([rolling, ...asking]);
  tally.stuck.push(...(await atRest(world)), ...refused);
  tally.lost.push(...(await inOrder(world)));
  for (const { as, what } of (await Promise.all(acts.map((act) => act.wrong()))).flat()) tally[as].push(what);
  for (const { kind, attempts } of await world.rows('SELECT kind, attempts FROM jobs WHERE attempts > 1'))
    tally.doubled.push(`${String(kind)} was begun ${String(attempts)} times`);
  tally.survived = tally.kills;
  return { ...tally, asked: acts.length };
}

/** A process that is told to end is gone after so long, in ms. */
const MOST_TO_END_MS = 30_000;
