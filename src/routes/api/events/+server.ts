import { listen } from '$lib/server/jobs/events';
import { activeJobs } from '$lib/server/jobs/runner';
import type { RequestHandler } from './$types';

const KEEP_ALIVE_MS = 20_000;

/** Job news as server-sent events: what is under way now, then every change. */
export const GET: RequestHandler = async () => {
  const encoder = new TextEncoder();
  let stop = (): void => undefined;
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (data: unknown): void =>
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(data)}\n\n`));
      const unlisten = listen(send);
      const beat = setInterval(() => controller.enqueue(encoder.encode(': here\n\n')), KEEP_ALIVE_MS);
      stop = () => {
        clearInterval(beat);
        unlisten();
      };
      for (const job of await activeJobs()) send(job);
    },
    cancel() {
      stop();
    },
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' },
  });
};
