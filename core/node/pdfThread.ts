import { parentPort } from 'node:worker_threads';
import { readPdf } from './pdf.ts';

/** What is asked of this thread, and what it answers: a document, or why it cannot be read. */
export interface PdfAsked {
  readonly bytes: Uint8Array;
}
export interface PdfAnswer {
  readonly document?: Awaited<ReturnType<typeof readPdf>>;
  readonly trouble?: { readonly name: string; readonly message: string };
}

const answer = (said: PdfAnswer): void => parentPort?.postMessage(said);

parentPort?.on('message', ({ bytes }: PdfAsked) => {
  readPdf(bytes).then(
    (document) => answer({ document }),
    ({ name, message }: Error) => answer({ trouble: { name, message } }),
  );
});
// The library is there.
answer({});
