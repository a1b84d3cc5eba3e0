import { z } from 'zod';
import { ConnectorError } from './types.ts';

export interface HttpOptions {
  readonly name: string;
  readonly address: string;
  readonly token: string;
  /** Told when a request had to be made again. */
  readonly onRetry?: (what: string) => void;
  readonly timeoutMs?: number;
}

interface Sending {
  readonly method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly json?: unknown;
  readonly bytes?: Uint8Array;
  readonly headers?: Readonly<Record<string, string>>;
  /** A status that counts as done when the request was made before: what is gone is gone. */
  readonly doneIfAgain?: number;
  /** What it is about, for people. */
  readonly what: string;
  readonly timeoutMs?: number;
  /** What answers with another address is refused, not followed there. */
  readonly stay?: boolean;
}

const TRIES = 4;
const BACK_OFF_MS = [200, 800, 2500];
const DEFAULT_TIMEOUT_MS = 30_000;
/** A collection that never ends is none. */
const MOST_LISTED = 100_000;

const Failure = z.object({ imsx_description: z.string() }).partial();

/**
 * Requests with a time limit that are made again when no answer came. Only for requests that are safe to
 * repeat.
 */
export class Http {
  constructor(private readonly options: HttpOptions) {}

  async json<T>(path: string, schema: z.ZodType<T>, sending: Sending): Promise<T> {
    const response = await this.send(path, sending);
    const parsed = schema.safeParse(await response.json().catch(() => null));
    if (!parsed.success)
      throw new ConnectorError(
        `${this.options.name} answered ${sending.what} with something else than expected: ${z.prettifyError(parsed.error).split('\n')[0]}`,
      );
    return parsed.data;
  }

  /** All pages of a collection, by offset and the total the service counts. */
  async pages<T>(path: string, key: string, schema: z.ZodType<T>, what: string): Promise<T[]> {
    const limit = 100;
    const out: T[] = [];
    for (let offset = 0; ; offset += limit) {
      const joint = path.includes('?') ? '&' : '?';
      const response = await this.send(`${path}${joint}limit=${limit}&offset=${offset}`, { what });
      const body = z.record(z.string(), z.unknown()).safeParse(await response.json().catch(() => null));
      const page = z.array(schema).safeParse(body.success ? body.data[key] : null);
      if (!page.success)
        throw new ConnectorError(`${this.options.name} answered ${what} with something else than expected.`);
      out.push(...page.data);
      if (out.length > MOST_LISTED)
        throw new ConnectorError(`${this.options.name} lists more than ${MOST_LISTED} things ${what}.`);
      const total = Number(response.headers.get('x-total-count') ?? Number.NaN);
      if (page.data.length === 0 || (Number.isFinite(total) ? out.length >= total : page.data.length < limit))
        return out;
    }
  }

  async send(path: string, sending: Sending): Promise<Response> {
    const { name, address, token, onRetry, timeoutMs = DEFAULT_TIMEOUT_MS } = this.options;
    const { method = 'GET', json, bytes, headers = {}, what } = sending;
    let last = '';
    for (let attempt = 0; attempt < TRIES; attempt++) {
      if (attempt > 0) {
        await new Promise((done) => setTimeout(done, BACK_OFF_MS[attempt - 1]));
        onRetry?.(what);
      }
      let response: Response;
      try {
        response = await fetch(new URL(path, address.endsWith('/') ? address : `${address}/`), {
          method,
          headers: {
            Authorization: `Bearer ${token}`,
            Accept: 'application/json',
            ...(json === undefined ? {} : { 'Content-Type': 'application/json' }),
            ...(bytes === undefined ? {} : { 'Content-Type': 'application/octet-stream' }),
            ...headers,
          },
          body: json !== undefined ? JSON.stringify(json) : bytes === undefined ? null : Buffer.from(bytes),
          redirect: sending.stay ? 'manual' : 'follow',
          signal: AbortSignal.timeout(sending.timeoutMs ?? timeoutMs),
        });
      } catch (error) {
        last = (error as Error).name === 'TimeoutError' ? 'did not answer in time' : 'is not answering';
        continue;
      }
      if (response.ok || (attempt > 0 && response.status === sending.doneIfAgain)) return response;
      if (response.status >= 500 || response.status === 429) {
        last = `answers with an error (${response.status})`;
        continue;
      }
      throw new ConnectorError(await refusal(response, name, what), response.status);
    }
    throw new ConnectorError(`${name} ${last} (${what}, ${TRIES} tries). Nothing is lost; try again later.`);
  }
}

async function refusal(response: Response, name: string, what: string): Promise<string> {
  const body = Failure.safeParse(await response.json().catch(() => null));
  const said = body.success ? body.data.imsx_description : undefined;
  if (response.status === 401)
    return `${name} does not know this token. Get a new one there and put it in under Systems.`;
  return `${name} refused ${what}: ${said ?? `status ${response.status}`}`;
}
