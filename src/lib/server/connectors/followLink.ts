import { ask, NoAddress, PrivateAddress, type Inside } from './door.ts';
import type { LinkStep, LinkTest } from '../../shared/links.ts';

/** Follows a link with care: a time limit for all of it, few redirects, and nothing but its head is read. */

interface FollowOptions {
  /** What may be asked though it lies inside a network. */
  readonly inside: Inside;
  /** For all of it, in ms. */
  readonly timeoutMs?: number;
}

const TIMEOUT_MS = 8000;
const MOST_REDIRECTS = 5;
const LONGEST_URL = 4000;

/** Follows a link to where it ends. It never throws: what goes wrong is what it says. */
export async function followLink(url: string, options: FollowOptions): Promise<LinkTest> {
  const steps: LinkStep[] = [];
  const signal = AbortSignal.timeout(options.timeoutMs ?? TIMEOUT_MS);
  let next = url;
  try {
    for (let at = 0; at <= MOST_REDIRECTS; at++) {
      const target = addressOf(next);
      const { status, location } = await headOf(target, options.inside, signal);
      steps.push({ url: next, status });
      if (status < 300 || status > 399 || location === null)
        return { url, why: status < 400 ? 'opens' : saidBy(status), status, steps };
      next = new URL(location, target).href;
    }
    return { url, why: 'too-many-redirects', status: null, steps };
  } catch (error) {
    const why = signal.aborted ? 'no-answer-in-time' : reasonOf(error);
    return { url, why, status: null, steps: [...steps, { url: next, status: null }] };
  }
}

function addressOf(url: string): URL {
  if (url.length > LONGEST_URL || !URL.canParse(url)) throw new NoAddress();
  const target = new URL(url);
  if (target.protocol !== 'http:' && target.protocol !== 'https:') throw new NoAddress();
  return target;
}

const saidBy = (status: number): LinkTest['why'] =>
  status === 404 || status === 410
    ? 'not-found'
    : status === 401 || status === 403
      ? 'asks-to-sign-in'
      : 'refused';

function reasonOf(error: unknown): LinkTest['why'] {
  if (error instanceof PrivateAddress) return 'private-address';
  if (error instanceof NoAddress) return 'no-address';
  const { code = '' } = error as NodeJS.ErrnoException;
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'name-unknown';
  return /CERT|SSL|TLS/u.test(code) ? 'certificate' : 'no-answer';
}

interface Head {
  readonly status: number;
  readonly location: string | null;
}

/** The head of an answer; what follows it is not read. */
async function headOf(target: URL, inside: Inside, signal: AbortSignal): Promise<Head> {
  const headers = { 'User-Agent': 'Alforja link test', Accept: 'text/html,*/*' };
  const response = await ask(target, { headers, signal, inside });
  response.destroy();
  return { status: response.statusCode ?? 0, location: response.headers.location ?? null };
}
