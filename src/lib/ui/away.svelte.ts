/**
 * Whether the server answers. While it does not, the page stays as it is, and what was meant waits: it is done
 * once the server is back.
 */

const ASK_EVERY_MS = 1500;
/** What stands between says this for a server that is away. */
const UNAVAILABLE = 503;

class Away {
  /** Whether the server is away. */
  now = $state(false);
  /** Where somebody wanted to go meanwhile. */
  heading = $state<string | null>(null);
  #waiting: (() => void)[] = [];
  #timer: ReturnType<typeof setInterval> | undefined;

  /** Noted wherever an answer does not come. */
  gone(): void {
    if (this.now) return;
    this.now = true;
    this.#timer = setInterval(() => void this.#ask(), ASK_EVERY_MS);
  }

  here(): void {
    if (!this.now) return;
    this.now = false;
    clearInterval(this.#timer);
    for (const go of this.#waiting.splice(0)) go();
  }

  /** Comes back when the server does. */
  back(): Promise<void> {
    return this.now ? new Promise((resolve) => this.#waiting.push(resolve)) : Promise.resolve();
  }

  async #ask(): Promise<void> {
    const response = await fetch('/api/notices').catch(() => null);
    if (response && response.status !== UNAVAILABLE) this.here();
  }
}

export const away = new Away();

/** Asks the server; where it is away, asks again once it is back. What it says is never asked twice. */
export async function patiently(request: () => Promise<Response>): Promise<Response> {
  for (;;) {
    try {
      const response = await request();
      if (response.status !== UNAVAILABLE) return response;
      away.gone();
      await away.back();
    } catch (error) {
      if ((error as Error).name === 'AbortError') throw error;
      away.gone();
      await away.back();
    }
  }
}
