import { existsSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import Piscina from 'piscina';
import { projectPath } from '../config.ts';
import type { Order, OrderKind, Orders, Outcome, ProgressMessage } from '../work/orders.ts';
import type { Progress } from '../work/progress.ts';
import { JobFailure } from './handler.ts';

/** How many threads compute at once. */
export const THREADS = Math.max(1, Math.min(4, cpus().length));
const IDLE_MS = 10_000;
/**
 * A tree is one large heap in which nearly everything lives on: a roomy nursery spares copying it over and
 * over.
 */
const YOUNG_GENERATION_MB = 192;

let pool: Piscina | null = null;

/** The worker as a bundle in production; from source, through tsx, in development. */
function openPool(): Piscina {
  const built = join(projectPath, 'build', 'workers', 'job.js');
  const useBuilt = process.env['NODE_ENV'] === 'production' && existsSync(built);
  return (pool ??= new Piscina({
    filename: useBuilt ? built : join(projectPath, 'src/lib/server/work/worker.ts'),
    execArgv: useBuilt ? [] : ['--import', 'tsx'],
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxYoungGenerationSizeMb: YOUNG_GENERATION_MB },
  }));
}

/**
 * Runs an order in a thread.
 * @throws JobFailure where it could not be done, and the reason of the signal once aborted
 */
export async function inThread<K extends OrderKind>(
  order: Order<K>,
  tell: Progress,
  signal: AbortSignal,
): Promise<Orders[K]['result']> {
  const { port1, port2 } = new MessageChannel();
  port1.on('message', ({ step, done, total }: ProgressMessage) => tell(step, done, total));
  try {
    const outcome = (await openPool().run(
      { order, port: port2 },
      { transferList: [port2], signal },
    )) as Outcome<K>;
    if (!outcome.ok) throw new JobFailure(outcome.failure);
    return outcome.result;
  } finally {
    port1.close();
  }
}

/** Ends the threads; the next order opens them again. */
export async function closeThreads(): Promise<void> {
  const open = pool;
  pool = null;
  await open?.destroy();
}
