import { goto, invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';
import type { JobView, PackageListing } from '$lib/shared/types';
import { away } from './away.svelte';
import { when } from './format';
import { refuseFile, upload } from './upload';

/** News from the server and files on their way in, shared by every page. */

interface Incoming {
  readonly key: number;
  readonly name: string;
  state: 'sending' | 'known' | 'in' | 'failed';
  message: string;
  packageId: string | null;
  /** Bytes. */
  sent: number;
  readonly total: number;
}

/** News that is no job of ours is passed over. */
const isJob = (news: unknown): news is JobView =>
  typeof news === 'object' && news !== null && 'id' in news && 'state' in news && 'step' in news;

const REFRESH_AFTER_MS = 60;
const REFRESH_EVERY_MS = 400;
const REOPEN_AFTER_MS = 1000;

class Live {
  jobs = $state<Record<string, JobView>>({});
  incoming = $state<Incoming[]>([]);
  /** The largest file that is taken, in bytes. */
  limit = Infinity;
  #source: EventSource | null = null;
  #next = 0;

  /** Opens the stream of job news once a page is up. @param after the latest news when the page was loaded */
  connect(after: string): () => void {
    this.#after = after;
    this.#listens = true;
    if (!this.#source) this.#open();
    return () => {
      this.#listens = false;
      this.#source?.close();
      this.#source = null;
    };
  }

  #listens = false;
  /** The latest news that was heard. */
  #after = '';

  #open(): void {
    const source = new EventSource(`/api/events?after=${encodeURIComponent(this.#after)}`);
    this.#source = source;
    const heard = ({ lastEventId }: MessageEvent<string>): void =>
      void (this.#after = lastEventId || this.#after);
    for (const kind of ['refresh', 'changed'])
      source.addEventListener(kind, (event) => {
        heard(event as MessageEvent<string>);
        void this.#refresh();
      });
    source.onopen = () => away.here();
    source.onmessage = (event: MessageEvent<string>) => {
      heard(event);
      const news: unknown = JSON.parse(event.data);
      if (isJob(news)) this.#hear(news);
    };
    source.onerror = () => {
      away.gone();
      // A line that breaks comes back of itself; one that was refused, by whatever stands between, does not.
      if (source.readyState === EventSource.CLOSED) void this.#reopen(source);
    };
  }

  async #reopen(closed: EventSource): Promise<void> {
    closed.close();
    this.#source = null;
    await new Promise((resolve) => setTimeout(resolve, REOPEN_AFTER_MS));
    await away.back();
    if (this.#listens && !this.#source) this.#open();
  }

  #hear(job: JobView): void {
    if (job.state === 'queued' || job.state === 'running') this.jobs[job.id] = job;
    else {
      delete this.jobs[job.id];
      void this.#refresh();
    }
  }

  #waiting = false;
  #refreshed = 0;

  /**
   * Loads the page's data again; once for news that come close together, and never across a navigation, which
   * it would undo.
   */
  async #refresh(): Promise<void> {
    if (this.#waiting) return;
    this.#waiting = true;
    // Soon after the first news, and not over and over while much goes on.
    const since = Date.now() - this.#refreshed;
    await new Promise((resolve) => setTimeout(resolve, Math.max(REFRESH_AFTER_MS, REFRESH_EVERY_MS - since)));
    this.#waiting = false;
    this.#refreshed = Date.now();
    await this.reload();
  }

  /** Loads the page's data again; never across a navigation, which it would undo. */
  async reload(): Promise<void> {
    while (navigating.to || this.#moving > 0)
      await new Promise((resolve) => setTimeout(resolve, REFRESH_AFTER_MS));
    await invalidateAll();
  }

  #moving = 0;

  /** Goes to a page without news getting in between. */
  async go(path: string, options: Parameters<typeof goto>[1] = {}): Promise<void> {
    this.#moving++;
    await goto(path, options).finally(() => this.#moving--);
  }

  get active(): JobView[] {
    return Object.values(this.jobs);
  }

  jobOf(subject: string): JobView | null {
    return this.active.find((j) => j.subject === subject) ?? null;
  }

  /** Brings files in one after the other; gives the packages they became. */
  async bring(files: Iterable<File>): Promise<PackageListing[]> {
    const brought: PackageListing[] = [];
    for (const file of files) {
      this.incoming.push({
        key: this.#next++,
        name: file.name,
        state: 'sending',
        message: '',
        packageId: null,
        sent: 0,
        total: file.size,
      });
      const entry = this.incoming[this.incoming.length - 1]!;
      try {
        refuseFile(file, this.limit);
        const { package: held, known } = await upload(file, (sent) => (entry.sent = sent));
        entry.state = known ? 'known' : 'in';
        entry.packageId = held.id;
        entry.message = known ? `You brought this in ${when(held.broughtAt)} as ${held.name}.` : '';
        brought.push(held);
      } catch (error) {
        entry.state = 'failed';
        entry.message = (error as Error).message;
      }
    }
    await this.reload();
    return brought;
  }

  dismiss(key: number): void {
    this.incoming = this.incoming.filter((i) => i.key !== key);
  }
}

export const live = new Live();

/** What a drop anywhere on the page does: a page may take files for itself (the arrival stage does). */
export const dropTarget = $state<{
  take: ((brought: PackageListing[]) => void | Promise<void>) | null;
  label: string;
}>({ take: null, label: '' });

/** Several files are shown side by side: they may belong together. */
export async function bringFiles(files: FileList | readonly File[] | null | undefined): Promise<void> {
  if (!files || files.length === 0) return;
  const take = dropTarget.take;
  const inOrder = [...files].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const brought = await live.bring(inOrder);
  const ids = [...new Set(brought.map((b) => b.id))];
  if (take) await take(brought);
  else if (ids.length > 1) {
    // Their page says of each what it is: no note has to.
    for (const { key, state } of live.incoming) if (state === 'known') live.dismiss(key);
    await live.go(`/packages/together?ids=${ids.join(',')}`);
  } else if (brought.length > 0 && !['/', '/packages'].includes(location.pathname)) await live.go('/');
}
