import { jobsUnderWay } from '$lib/server/store/jobs';
import { news, type NewsItem } from '$lib/server/store/news';
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
      const send = ({ id, job, changed }: NewsItem): void =>
        put(`id: ${id}\n${job ? '' : 'event: changed\n'}data: ${JSON.stringify(job ?? changed)}\n\n`);
      const unlisten = news.listen(send);
      const beat = setInterval(() => put(': here\n\n'), KEEP_ALIVE_MS);
      stop = () => {
        clearInterval(beat);
        unlisten();
      };
      const missed = after === null ? [] : news.endedSince(after);
      if (missed === null) put(`id: ${news.latest()}\nevent: refresh\ndata: {}\n\n`);
      else missed.forEach(send);
      for (const job of await jobsUnderWay()) send({ id: news.latest(), job });
    },
    cancel() {
      stop();
    },
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' },
  });
};
