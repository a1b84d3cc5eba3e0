import type { IncomingMessage } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import { z } from 'zod';
import { cut, shownName } from '@alforja/core';
import { ask, PrivateAddress, type Inside } from './door.ts';
import { ConnectorError } from './types.ts';

export interface HttpOptions {
  readonly name: string;
  readonly address: string;
  readonly token: string;
  /** What may be asked though it lies inside a network. */
  readonly inside: Inside;
  /** Told when a request had to be made again. */
  readonly onRetry?: (what: string) => void;
  /** Once it is aborted nothing more is asked, and what is being asked is broken off. */
  readonly signal?: AbortSignal;
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
  /** For all of one try, its answer to the last byte, in ms. */
  readonly timeoutMs?: number;
  /** The most that an answer may hold, unpacked, in bytes. */
  readonly most?: number;
}

/** An answer that has come whole. */
interface Answer {
  readonly status: number;
  readonly bytes: Uint8Array;
  readonly header: (name: string) => string | null;
}

const TRIES = 4;
const BACK_OFF_MS = [200, 800, 2500];
const DEFAULT_TIMEOUT_MS = 30_000;
/** A collection that never ends is none. */
const MOST_LISTED = 100_000;
const ALL_PAGES_MS = 300_000;
/** Lists and outlines of the largest institutions are a part of this. */
const MOST_BYTES = 8 * 1024 * 1024;
/** Only to where it began, and not round in circles. */
const MOST_REDIRECTS = 3;
const LONGEST_SAID = 300;

const Failure = z.object({ imsx_description: z.string() }).partial();

/** An answer has more bytes than it may have. */
class TooMany extends Error {}

/**
 * Requests with a limit to their time and their bytes that are made again when no answer came. Only for requests that
 * are safe to repeat.
 */
export class Http {
  constructor(private readonly options: HttpOptions) {}

  async json<T>(path: string, schema: z.ZodType<T>, sending: Sending): Promise<T> {
    const parsed = schema.safeParse(jsonOf(await this.send(path, sending)));
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
    const until = performance.now() + ALL_PAGES_MS;
    for (let offset = 0; ; offset += limit) {
      const joint = path.includes('?') ? '&' : '?';
      const answer = await this.send(`${path}${joint}limit=${limit}&offset=${offset}`, { what });
      const body = z.record(z.string(), z.unknown()).safeParse(jsonOf(answer));
      const page = z.array(schema).safeParse(body.success ? body.data[key] : null);
      if (!page.success)
        throw new ConnectorError(`${this.options.name} answered ${what} with something else than expected.`);
      for (const one of page.data) out.push(one);
      if (out.length > MOST_LISTED)
        throw new ConnectorError(`${this.options.name} lists more than ${MOST_LISTED} things ${what}.`);
      const total = Number(answer.header('x-total-count') ?? Number.NaN);
      if (page.data.length === 0 || (Number.isFinite(total) ? out.length >= total : page.data.length < limit))
        return out;
      if (performance.now() > until)
        throw new ConnectorError(`${this.options.name} did not come to an end with ${what}.`);
    }
  }

  /** @throws ConnectorError in words; the signal's reason once it is aborted */
  async send(path: string, sending: Sending): Promise<Answer> {
    const { name, onRetry, signal } = this.options;
    const { what } = sending;
    let last = '';
    for (let attempt = 0; attempt < TRIES; attempt++) {
      if (attempt > 0) {
        await wait(BACK_OFF_MS[attempt - 1], undefined, signal ? { signal } : {});
        onRetry?.(what);
      }
      let answer: Answer;
      try {
        answer = await this.#try(path, sending);
      } catch (error) {
        if (signal?.aborted) throw signal.reason;
        if (error instanceof ConnectorError) throw error;
        if (error instanceof TooMany)
          throw new ConnectorError(`${name} answered ${what} with more than is taken.`);
        last = (error as Error).name === 'TimeoutError' ? 'did not answer in time' : 'is not answering';
        continue;
      }
      const { status } = answer;
      if ((status >= 200 && status < 300) || (attempt > 0 && status === sending.doneIfAgain)) return answer;
      if (status >= 500 || status === 429) {
        last = `answers with an error (${status})`;
        continue;
      }
      throw new ConnectorError(refusal(answer, name, what), status);
    }
    throw new ConnectorError(`${name} ${last} (${what}, ${TRIES} tries). Nothing is lost; try again later.`);
  }

  async #try(path: string, sending: Sending): Promise<Answer> {
    const { name, address, token, inside, timeoutMs = DEFAULT_TIMEOUT_MS } = this.options;
    const { method = 'GET', json, bytes, headers = {}, most = MOST_BYTES } = sending;
    const limit = AbortSignal.timeout(sending.timeoutMs ?? timeoutMs);
    const signal = this.options.signal ? AbortSignal.any([this.options.signal, limit]) : limit;
    const body = json !== undefined ? JSON.stringify(json) : bytes;
    let target = new URL(path, address.endsWith('/') ? address : `${address}/`);
    const { origin } = target;
    try {
      for (let redirects = 0; redirects <= MOST_REDIRECTS; redirects++) {
        const response = await ask(target, {
          method,
          headers: {
            Authorization: `Bearer ${token}`,
            Accept: 'application/json',
            'Accept-Encoding': 'identity',
            ...(json === undefined ? {} : { 'Content-Type': 'application/json' }),
            ...(bytes === undefined ? {} : { 'Content-Type': 'application/octet-stream' }),
            ...(body === undefined ? {} : { 'Content-Length': String(Buffer.byteLength(body)) }),
            ...headers,
          },
          ...(body === undefined ? {} : { body }),
          signal,
          inside,
        });
        const location = redirectOf(response);
        if (location === null) return await wholeOf(response, most);
        response.destroy();
        target = new URL(location, target);
        // The token goes nowhere else.
        if (target.origin !== origin || method !== 'GET')
          throw new ConnectorError(`${name} sends on to another address; it is not followed there.`);
      }
      throw new ConnectorError(`${name} sends on from address to address without end.`);
    } catch (error) {
      if (error instanceof PrivateAddress)
        throw new ConnectorError(
          'That address lies inside this network. Whoever runs Alforja can allow it by name (ALFORJA_INSIDE).',
        );
      if (limit.aborted) throw limit.reason;
      throw error;
    }
  }
}

const redirectOf = ({ statusCode = 0, headers }: IncomingMessage): string | null =>
  statusCode >= 300 && statusCode < 400 && statusCode !== 304 ? (headers.location ?? null) : null;

/** Unpacked on the way, and never more than the limit of it. @throws TooMany */
async function wholeOf(response: IncomingMessage, most: number): Promise<Answer> {
  const parts: Uint8Array[] = [];
  let size = 0;
  const unpack = UNPACK[response.headers['content-encoding'] ?? ''];
  const stream = unpack ? response.pipe(unpack()) : response;
  // An error of what is piped is one of the answer.
  if (unpack) response.on('error', (error) => stream.destroy(error));
  for await (const part of stream as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > most) {
      response.destroy();
      throw new TooMany();
    }
    parts.push(part);
  }
  return {
    status: response.statusCode ?? 0,
    bytes: Buffer.concat(parts),
    header: (name) => {
      const found = response.headers[name];
      return typeof found === 'string' ? found : null;
    },
  };
}
const UNPACK: Readonly<Record<string, () => ReturnType<typeof createGunzip>>> = {
  gzip: createGunzip,
  deflate: createInflate,
  br: createBrotliDecompress,
};

function jsonOf({ bytes }: Answer): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return null;
  }
}

function refusal(answer: Answer, name: string, what: string): string {
  const body = Failure.safeParse(jsonOf(answer));
  const said = body.success ? body.data.imsx_description : undefined;
  if (answer.status === 401)
    return `${name} does not know this token. Get a new one there and put it in under Systems.`;
  return `${name} refused ${what}: ${said === undefined ? `status ${answer.status}` : shownName(cut(said, LONGEST_SAID))}`;
}
