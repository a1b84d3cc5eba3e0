import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { PdfBeyond, type PdfDocument } from '../src/intake/platform.ts';
import type { PdfAnswer, PdfAsked } from './pdfThread.ts';

/**
 * Reads PDFs in a thread of their own: one that the library never comes back from, or that takes all of its memory,
 * costs itself and nothing else of the file it came in.
 */

/** How long one PDF may take: so long, and so much longer for each of its megabytes, but never beyond the last. */
const [SHORTEST_MS, PER_MEGABYTE_MS, LONGEST_MS] = [10_000, 20_000, 300_000];
/** The most memory of the thread, in MB. */
const MEGABYTES = 1024;

const timeFor = (bytes: number): number =>
  Math.min(LONGEST_MS, SHORTEST_MS + PER_MEGABYTE_MS * Math.floor(bytes / 1024 / 1024));

/** The bundle beside this one in production; the source otherwise. */
const ENTRY = import.meta.url.endsWith('.ts') ? './fromSource.js' : './pdfThread.js';

interface Thread {
  readonly worker: Worker;
  /** Once it has loaded the library: only from then on its time counts. Rejects where it cannot. */
  readonly ready: Promise<unknown>;
}
let thread: Thread | null = null;

function open(): Thread {
  const worker = new Worker(new URL(ENTRY, import.meta.url), {
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
  });
  return { worker, ready: once(worker, 'message') };
}

let tail: Promise<unknown> = Promise.resolve();

/**
 * The text layer of a PDF, page by page, one PDF after another.
 * @param within how long it may take, in ms
 * @throws PdfBeyond where it takes more time or memory than it may; otherwise an Error with the library's name for it
 */
export function readPdfApart(bytes: Uint8Array, within = timeFor(bytes.length)): Promise<PdfDocument> {
  const next = tail.then(async () => {
    const { document, trouble } = await ask({ bytes }, within);
    if (document) return document;
    throw Object.assign(new Error(trouble?.message), { name: trouble?.name });
  });
  tail = next.catch(() => undefined);
  return next;
}

async function ask(question: PdfAsked, within: number): Promise<PdfAnswer> {
  thread ??= open();
  const { worker, ready } = thread;
  const timer = new AbortController();
  try {
    // What is waited for keeps the process; nobody waits for a thread that has nothing to do.
    worker.ref();
    await ready;
    const timeout = setTimeout(() => timer.abort(), within);
    worker.postMessage(question);
    const [answer] = (await once(worker, 'message', { signal: timer.signal }).finally(() =>
      clearTimeout(timeout),
    )) as [PdfAnswer];
    worker.unref();
    return answer;
  } catch (error) {
    thread = null;
    // What a thread that is ended still throws is of no interest.
    worker.on('error', () => undefined);
    void worker.terminate();
    if (timer.signal.aborted) throw new PdfBeyond(`${within / 1000} seconds`);
    if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new PdfBeyond(`${MEGABYTES} MB of memory`);
    throw error;
  }
}
