import { lookup as resolve, type LookupAddress } from 'node:dns';
import { request as plainRequest, type IncomingMessage } from 'node:http';
import { request as secureRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { insideSetting } from '../config.ts';

/**
 * The one way out: every request of this application to somewhere else goes through here. An address inside a network
 * is asked only where a setting names it, and the address that was checked is the one that is asked, whatever a name
 * stands for a moment later. Redirects are nobody's business here: who asks decides, and asks again through this door.
 */

/** What lies inside and may be asked all the same. */
export interface Inside {
  /** Names, or names with ports, as they stand in addresses. */
  readonly hosts: ReadonlySet<string>;
  readonly ranges: readonly [ipaddr.IPv4 | ipaddr.IPv6, number][];
}

/**
 * Reads a setting such as `127.0.0.1:4183, courses.internal, 10.0.0.0/8`.
 * @throws Error naming what of it is neither a host nor a range
 */
export function insideOf(setting: string): Inside {
  const hosts = new Set<string>();
  const ranges: [ipaddr.IPv4 | ipaddr.IPv6, number][] = [];
  for (const entry of setting.split(/[\s,]+/u).filter((e) => e !== '')) {
    if (ipaddr.isValidCIDR(entry)) ranges.push(ipaddr.parseCIDR(entry));
    else if (/^\[?[\w.:-]+\]?(?::\d{1,5})?$/u.test(entry)) hosts.add(entry.toLowerCase());
    else
      throw new Error(`“${entry}” in ALFORJA_INSIDE is neither a host, a host with its port, nor a range.`);
  }
  return { hosts, ranges };
}

/** What this installation's setting allows. */
export const inside: Inside = insideOf(insideSetting);

/** Whether an address belongs to no network but its own: loopback, private, link-local and the like. */
export function isPrivateAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return true;
  return ipaddr.process(address).range() !== 'unicast';
}

function inRange(address: string, { ranges }: Inside): boolean {
  if (!ipaddr.isValid(address)) return false;
  const one = ipaddr.process(address);
  return ranges.some(([of, bits]) => of.kind() === one.kind() && one.match(of as ipaddr.IPv4, bits));
}

const named = (target: URL, { hosts }: Inside): boolean =>
  hosts.has(target.host) || hosts.has(target.hostname) || hosts.has(target.hostname.replace(/^\[|\]$/gu, ''));

/** The address lies inside a network, and no setting names it. */
export class PrivateAddress extends Error {}
/** It is no address of the web. */
export class NoAddress extends Error {}

export interface Asking {
  readonly method?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string | Uint8Array;
  readonly signal: AbortSignal;
  readonly inside: Inside;
}

/** Asks, and answers with the head; the body is the caller's to read, or to leave. */
export function ask(
  target: URL,
  { method = 'GET', headers = {}, body, signal, inside }: Asking,
): Promise<IncomingMessage> {
  if (target.protocol !== 'http:' && target.protocol !== 'https:') return Promise.reject(new NoAddress());
  const free = named(target, inside);
  const may = (address: string): boolean => free || !isPrivateAddress(address) || inRange(address, inside);
  const host = target.hostname.replace(/^\[|\]$/gu, '');
  if (isIP(host) !== 0 && !may(host)) return Promise.reject(new PrivateAddress());
  const lookup: LookupFunction = (name, wanted, done) =>
    resolve(name, { ...wanted, all: true }, (error, found) => {
      const addresses = found as readonly LookupAddress[] | undefined;
      if (error) return done(error, '', 0);
      if (!addresses!.every((a) => may(a.address))) return done(new PrivateAddress(), '', 0);
      const [first] = addresses!;
      return wanted.all ? done(null, [...addresses!]) : done(null, first!.address, first!.family);
    });
  const send = target.protocol === 'https:' ? secureRequest : plainRequest;
  return new Promise((answered, failed) => {
    const asked = send(target, { method, lookup, signal, headers, agent: false }, answered);
    asked.on('error', failed);
    asked.end(body);
  });
}
