import { setTimeout as wait } from 'node:timers/promises';
import { fenced, onCommit, unfenced, write, type Transaction } from './store/database.ts';
import { claimRequest, noteAnswer, requestBy, type Answered } from './store/requests.ts';

/**
 * Requests that carry a key are done once, however often they come: a page whose answer was lost asks again. The key
 * is kept in the same change as what the request does first, so that neither stands without the other.
 *
 * Source: IETF draft "The Idempotency-Key HTTP Header Field" (from memory): the header's name, 422 for a key that
 * came with something else.
 */
export const KEY_HEADER = 'Idempotency-Key';

const KEY = /^[\w-]{16,64}$/u;
/** Longer answers are not kept; whoever asks again is told to look. */
const LONGEST_BODY = 64 * 1024;
/** How long one that came twice at once waits for the other's answer, in ms, and how often it looks. */
const [PATIENCE_MS, EVERY_MS] = [5000, 50];

/** Why a change is not made: a request with the same key has made it. */
export class MadeBefore extends Error {}

const said = (status: number, message: string): Response => Response.json({ message }, { status });
const DONE = 'This was done before the connection broke. Load the page again to see it.';

/**
 * Answers a request that may come more than once.
 * @param asked the method and the address
 */
export async function once(
  key: string,
  asked: string,
  answer: () => Response | Promise<Response>,
): Promise<Response> {
  if (!KEY.test(key))
    return said(400, `${KEY_HEADER} takes 16 to 64 letters, digits, hyphens and underscores.`);
  const before = await requestBy(key);
  if (before) return again(key, asked, before);
  let [claimed, twice] = [false, false];
  const fence = async (tx: Transaction): Promise<void> => {
    if (claimed) return;
    twice = !(await claimRequest(tx, key, asked));
    if (twice) throw new MadeBefore();
    onCommit(tx, () => (claimed = true));
  };
  const response = await fenced(fence, async () => answer()).catch((error: unknown) => {
    if (!twice) throw error;
    return null;
  });
  if (twice || !response) return again(key, asked, (await requestBy(key))!);
  if (claimed) await keep(key, response.clone());
  return response;
}

async function keep(key: string, response: Response): Promise<void> {
  const body = await response.text();
  const kept =
    body.length > LONGEST_BODY
      ? { status: 409, body: JSON.stringify({ message: DONE }) }
      : { status: response.status, body };
  // What was done is done, and answered, also where its answer cannot be kept.
  await unfenced(() => write((tx) => noteAnswer(tx, key, kept))).catch(console.error);
}

/** What a request that came before is answered now: what it was answered then, once that is known. */
async function again(key: string, asked: string, first: Answered): Promise<Response> {
  if (first.asked !== asked) return said(422, `This ${KEY_HEADER} came with another request before.`);
  let known = first;
  for (let waited = 0; known.status === null && waited < PATIENCE_MS; waited += EVERY_MS) {
    await wait(EVERY_MS);
    known = (await requestBy(key)) ?? known;
  }
  if (known.status === null) return said(409, DONE);
  const json = { 'Content-Type': 'application/json' };
  return known.body
    ? new Response(known.body, { status: known.status, headers: json })
    : new Response(null, { status: known.status });
}
