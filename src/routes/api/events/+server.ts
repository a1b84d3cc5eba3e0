import { jobsUnderWay } from '$lib/server/store/jobs';
import { latestNews, live, newsSince, type NewsItem } from '$lib/server/store/news';
import type { RequestHandler } from './$types';

const KEEP_ALIVE_MS = 20_000;

/**
 * News as server-sent events: what was told since the page was loaded (`after`) or the line broke (Last-Event-ID),
 * what is under way now, then every change. Where that can no longer be told: `refresh`.
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
      // What comes while it is looked up what was missed waits, and is not told twice.
      const meanwhile: NewsItem[] = [];
      let hear = (item: NewsItem): void => void meanwhile.push(item);
      const unlisten = live.listen((item) => hear(item));
      const unclosed = live.onClose(() => {
        stop();
        controller.close();
      });
      const beat = setInterval(() => put(': here\n\n'), KEEP_ALIVE_MS);
      stop = () => {
        clearInterval(beat);
        unlisten();
        unclosed();
      };
      const missed = after === null ? [] : await newsSince(after);
      const latest = missed?.at(-1)?.id ?? (await latestNews());
      if (missed === null) put(`id: ${latest}\nevent: refresh\ndata: {}\n\n`);
      else missed.forEach(send);
      for (const job of await jobsUnderWay()) send({ id: latest, job });
      for (const item of meanwhile) if (item.id > latest) send(item);
      hear = send;
    },
    cancel() {
      stop();
    },
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' },
  });
};
