import { lookup as resolve, type LookupAddress } from 'node:dns';
import { request as plainRequest, type IncomingMessage } from 'node:http';
import { request as secureRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import type { LinkStep, LinkTest } from '../../shared/links.ts';

/**
 * Follows a link with care: a time limit for all of it, few redirects, nothing but its head is read, and no address inside
 * a network is asked unless it is allowed. The address that is checked is the one that is asked, whatever a name stands for
 * a moment later.
 */

interface FollowOptions {
  /** Origins (`http://host:port`) that may lie inside a network. */
  readonly allowed: ReadonlySet<string>;
  /** Whether any address inside a network may be asked. */
  readonly allowPrivate?: boolean;
  /** For all of it, in ms. */
  readonly timeoutMs?: number;
}

const TIMEOUT_MS = 8000;
const MOST_REDIRECTS = 5;
const LONGEST_URL = 4000;

class Stopped extends Error {
  constructor(readonly why: LinkTest['why']) {
    super(why);
  }
}

/** Whether an address belongs to no network but its own: loopback, private, link-local and the like. */
export function isPrivateAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return true;
  return ipaddr.process(address).range() !== 'unicast';
}

/** Follows a link to where it ends. It never throws: what goes wrong is what it says. */
export async function followLink(url: string, options: FollowOptions): Promise<LinkTest> {
  const steps: LinkStep[] = [];
  const signal = AbortSignal.timeout(options.timeoutMs ?? TIMEOUT_MS);
  let next = url;
  try {
    for (let at = 0; at <= MOST_REDIRECTS; at++) {
      const target = addressOf(next);
      const { status, location } = await headOf(target, options, signal);
      steps.push({ url: next, status });
      if (status < 300 || status > 399 || location === null)
        return { url, why: status < 400 ? 'opens' : saidBy(status), status, steps };
      next = new URL(location, target).href;
    }
    return { url, why: 'too-many-redirects', status: null, steps };
  } catch (error) {
    const why = error instanceof Stopped ? error.why : signal.aborted ? 'no-answer-in-time' : reasonOf(error);
    return { url, why, status: null, steps: [...steps, { url: next, status: null }] };
  }
}

function addressOf(url: string): URL {
  if (url.length > LONGEST_URL || !URL.canParse(url)) throw new Stopped('no-address');
  const target = new URL(url);
  if (target.protocol !== 'http:' && target.protocol !== 'https:') throw new Stopped('no-address');
  return target;
}

const saidBy = (status: number): LinkTest['why'] =>
  status === 404 || status === 410
    ? 'not-found'
    : status === 401 || status === 403
      ? 'asks-to-sign-in'
      : 'refused';

function reasonOf(error: unknown): LinkTest['why'] {
  const { code = '' } = error as NodeJS.ErrnoException;
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'name-unknown';
  return /CERT|SSL|TLS/u.test(code) ? 'certificate' : 'no-answer';
}

interface Head {
  readonly status: number;
  readonly location: string | null;
}

/** The head of an answer; what follows it is not read. */
function headOf(target: URL, options: FollowOptions, signal: AbortSignal): Promise<Head> {
  const free = options.allowPrivate === true || options.allowed.has(target.origin);
  const host = target.hostname.replace(/^\[|\]$/gu, '');
  if (!free && isIP(host) !== 0 && isPrivateAddress(host)) throw new Stopped('private-address');
  const lookup: LookupFunction = (name, wanted, done) =>
    resolve(name, { ...wanted, all: true }, (error, found) => {
      const addresses = found as readonly LookupAddress[] | undefined;
      if (error) return done(error, '', 0);
      if (!free && addresses!.some((a) => isPrivateAddress(a.address)))
        return done(new Stopped('private-address'), '', 0);
      const [first] = addresses!;
      return wanted.all ? done(null, [...addresses!]) : done(null, first!.address, first!.family);
    });
  const send = target.protocol === 'https:' ? secureRequest : plainRequest;
  return new Promise((answered, failed) => {
    const headers = { 'User-Agent': 'Alforja link test', Accept: 'text/html,*/*' };
    const asked = send(
      target,
      { method: 'GET', lookup, signal, headers, agent: false },
      (response: IncomingMessage) => {
        const { statusCode = 0, headers: said } = response;
        response.destroy();
        answered({ status: statusCode, location: said.location ?? null });
      },
    );
    asked.on('error', failed);
    asked.end();
  });
}
