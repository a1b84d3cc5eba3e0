import { endedSince, latestNews, listen, type News } from '$lib/server/jobs/events';
import { activeJobs } from '$lib/server/jobs/runner';
import type { RequestHandler } from './$types';

const KEEP_ALIVE_MS = 20_000;

/**
 * Job news as server-sent events: what ended since the page was loaded (`after`) or the line broke
 * (Last-Event-ID), what is under way now, then every change. Where that can no longer be told: `refresh`.
 */
export const GET: RequestHandler = async ({ request, url }) => {
  const encoder = new TextEncoder();
  const after = request.headers.get('last-event-id') ?? url.searchParams.get('after');
  let stop = (): void => undefined;
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const put = (text: string): void => controller.enqueue(encoder.encode(text));
      const send = ({ id, job, changed }: News): void =>
        put(`id: ${id}\n${job ? '' : 'event: changed\n'}data: ${JSON.stringify(job ?? changed)}\n\n`);
      const unlisten = listen(send);
      const beat = setInterval(() => put(': here\n\n'), KEEP_ALIVE_MS);
      stop = () => {
        clearInterval(beat);
        unlisten();
      };
      const missed = after === null ? [] : endedSince(after);
      if (missed === null) put(`id: ${latestNews()}\nevent: refresh\ndata: {}\n\n`);
      else missed.forEach(send);
      for (const job of await activeJobs()) send({ id: latestNews(), job });
    },
    cancel() {
      stop();
    },
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' },
  });
};
