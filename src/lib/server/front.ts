import { host, MAX_UPLOAD, originSetting, port } from './config.ts';

/** The front door: who may ask, for how much, and what every answer says of how it may be used. */

/** Names this machine goes by to somebody who sits at it. */
const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];
/** Addresses that mean every network of this machine. */
const EVERYWHERE: ReadonlySet<string> = new Set(['0.0.0.0', '::', '[::]']);

/** Where this application is found: origins, by the setting of one, else by the address it listens on. */
export function originsOf(setting: string | null, listensOn: string, onPort: string): ReadonlySet<string> {
  const own = setting ? [new URL(setting).origin] : [];
  const bracketed = listensOn.includes(':') && !listensOn.startsWith('[') ? `[${listensOn}]` : listensOn;
  const names = EVERYWHERE.has(listensOn) || LOOPBACK.includes(bracketed) ? LOOPBACK : [bracketed];
  return new Set([...own, ...names.map((name) => new URL(`http://${name}:${onPort}`).origin)]);
}

const ORIGINS = originsOf(originSetting, host, port);

const CHANGES: ReadonlySet<string> = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
/** Whether a request may change something. */
export const isChange = ({ method }: Pick<Request, 'method'>): boolean => CHANGES.has(method);

/** The largest request in JSON or of a form: a table that somebody pastes, a whole rubric. */
export const MAX_JSON = 4 * 1024 * 1024;
const SMALL = /^(?:application\/(?:json|x-www-form-urlencoded)|multipart\/form-data|text\/plain)/iu;

interface Refused {
  readonly status: 400 | 403 | 411 | 413 | 421;
  readonly message: string;
}

const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;

/**
 * Why a request is not looked at; null where it is.
 * @param origins where this application is found
 */
export function refusalOf(
  { method, headers }: Pick<Request, 'method' | 'headers'>,
  origins: ReadonlySet<string> = ORIGINS,
): Refused | null {
  const asked = headers.get('host')?.toLowerCase() ?? '';
  if (!origins.has(`http://${asked}`) && !origins.has(`https://${asked}`))
    return {
      status: 421,
      message: 'This application does not go by that name. Whoever runs it names its address in ORIGIN.',
    };
  if (!isChange({ method })) return null;
  // A page of another site can send forms and files too; only its origin tells it apart.
  if (!origins.has(headers.get('origin') ?? ''))
    return { status: 403, message: 'This request does not come from a page of this application.' };
  return sizeRefusal(headers);
}

function sizeRefusal(headers: Headers): Refused | null {
  const said = headers.get('content-length');
  const type = headers.get('content-type') ?? '';
  const limit = SMALL.test(type) ? MAX_JSON : MAX_UPLOAD;
  if (said === null) {
    if (type === '' && headers.get('transfer-encoding') === null) return null;
    return SMALL.test(type)
      ? { status: 411, message: 'Say how long the request is (Content-Length).' }
      : null;
  }
  if (!/^\d{1,15}$/u.test(said)) return { status: 400, message: 'The length of the request is no number.' };
  return Number(said) > limit
    ? { status: 413, message: `That is more than is taken here: ${megabytes(limit)} at most.` }
    : null;
}

/** What every answer says, unless a route says something else. */
const SAYS: Readonly<Record<string, string>> = {
  'Cache-Control': 'no-store',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Referrer-Policy': 'same-origin',
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
};

/** Adds to an answer how it may be used. */
export function guarded(response: Response): Response {
  for (const [name, value] of Object.entries(SAYS))
    if (name !== 'Cache-Control' || !response.headers.has(name)) response.headers.set(name, value);
  return response;
}

/** What is text and may be long. */
const TEXT = /^(?:text\/(?:html|csv)|application\/json)\b/u;
/** Shorter answers are not worth it, in bytes. */
const LEAST_PACKED = 16 * 1024;

/** A long text answer as few bytes, where whoever asks can unpack it (RFC 9110, 8.4 and 12.5.3). */
export function packed({ headers }: Pick<Request, 'headers'>, response: Response): Response {
  const { body } = response;
  const takes = /\bgzip\b(?!\s*;\s*q=0(?:\.0*)?\s*(?:,|$))/iu.test(headers.get('accept-encoding') ?? '');
  const said = response.headers.get('content-length');
  const short = said !== null && Number(said) < LEAST_PACKED;
  const text = TEXT.test(response.headers.get('content-type') ?? '');
  if (!body || !takes || short || !text || response.headers.has('content-encoding')) return response;
  const answer = new Response(body.pipeThrough(new CompressionStream('gzip')), response);
  answer.headers.delete('content-length');
  answer.headers.set('Content-Encoding', 'gzip');
  answer.headers.append('Vary', 'Accept-Encoding');
  return answer;
}
