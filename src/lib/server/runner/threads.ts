import { existsSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import Piscina from 'piscina';
import { projectPath, threadMegabytes, workersPath } from '../config.ts';
import { Gate } from '../store/gate.ts';
import { tooLong, tooMuch } from '../work/beyond.ts';
import type { Asked, Order, OrderKind, Orders, Outcome, ProgressMessage } from '../work/orders.ts';
import type { Progress } from '../work/progress.ts';
import { JobFailure } from './handler.ts';

/** How many threads compute at once for jobs. */
export const THREADS = Math.max(1, Math.min(4, cpus().length));
/** And, apart from those, for pages that somebody waits for. */
const PAGE_THREADS = 2;
const IDLE_MS = 10_000;
/**
 * A tree is one large heap in which nearly everything lives on: a roomy nursery spares copying it over and over. More than
 * this makes nothing faster, and each thread has one.
 */
const YOUNG_GENERATION_MB = 48;

/** Who waits for an order: a job, or somebody before a page. */
type Lane = 'job' | 'page';
interface LaneLimits {
  /** Threads that stay though nothing is asked: starting one takes longer than most pages do. */
  readonly warm: number;
  readonly threads: number;
  /** After so long an order is broken off, in ms. */
  readonly deadline: number;
}
const LANES: Readonly<Record<Lane, LaneLimits>> = {
  job: { warm: 0, threads: THREADS, deadline: 1_200_000 },
  page: { warm: 1, threads: PAGE_THREADS, deadline: 120_000 },
};

const pools = new Map<Lane, Piscina>();
/** Of the orders that are under way: a thread is ended only once its gate is closed. */
const gates = new Set<Gate>();

/** The worker as a bundle, where there is one; from source, through tsx, in development. */
function poolOf(lane: Lane): Piscina {
  const open = pools.get(lane);
  if (open) return open;
  const built = workersPath === null ? null : join(workersPath, 'job.js');
  const bundled = built !== null && existsSync(built);
  const pool = new Piscina({
    filename: bundled ? built : join(projectPath, 'src/lib/server/work/worker.ts'),
    execArgv: bundled ? [] : ['--import', 'tsx'],
    minThreads: LANES[lane].warm,
    maxThreads: LANES[lane].threads,
    idleTimeout: IDLE_MS,
    resourceLimits: {
      maxYoungGenerationSizeMb: YOUNG_GENERATION_MB,
      maxOldGenerationSizeMb: threadMegabytes,
    },
  });
  pools.set(lane, pool);
  return pool;
}

/** Starts the threads that pages ask, so that not even the first has to wait for one to start. */
export const warmThreads = (): unknown => poolOf('page');

interface Bounds {
  readonly lane?: Lane;
  /** Less time than the lane gives, in ms. */
  readonly deadline?: number;
}

/**
 * Runs an order in a thread, within the time and memory of its lane.
 * @throws JobFailure where it could not be done, or took more than it may; the reason of the signal once aborted
 */
export async function inThread<K extends OrderKind>(
  order: Order<K>,
  tell: Progress,
  signal: AbortSignal,
  { lane = 'job', deadline = LANES[lane].deadline }: Bounds = {},
): Promise<Orders[K]['result']> {
  signal.throwIfAborted();
  const { port1, port2 } = new MessageChannel();
  const gate = new Gate();
  gates.add(gate);
  let step = '';
  port1.on('message', (told: ProgressMessage) => {
    step = told.step;
    tell(told.step, told.done, told.total);
  });
  const limit = AbortSignal.timeout(deadline);
  const unwanted = AbortSignal.any([signal, limit]);
  const end = new AbortController();
  const breakOff = (): void => void gate.close().then(() => end.abort(unwanted.reason));
  unwanted.addEventListener('abort', breakOff, { once: true });
  try {
    const asked: Asked<K> = { order, port: port2, gate: gate.shared };
    const outcome = (await poolOf(lane).run(asked, {
      transferList: [port2],
      signal: end.signal,
    })) as Outcome<K>;
    signal.throwIfAborted();
    if (!outcome.ok) throw new JobFailure(outcome.failure);
    return outcome.result;
  } catch (error) {
    if (signal.aborted) throw signal.reason;
    const beyond = limit.aborted
      ? tooLong(deadline, step)
      : outOfMemory(error)
        ? tooMuch(threadMegabytes, step)
        : null;
    throw beyond ? new JobFailure(beyond) : error;
  } finally {
    unwanted.removeEventListener('abort', breakOff);
    gates.delete(gate);
    port1.close();
  }
}

const outOfMemory = (error: unknown): boolean =>
  (error as { code?: unknown } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY';

/** Ends the threads; the next order opens them again. */
export async function closeThreads(): Promise<void> {
  const open = [...pools.values()];
  pools.clear();
  await Promise.all([...gates].map((gate) => gate.close()));
  await Promise.all(open.map((pool) => pool.destroy()));
}
