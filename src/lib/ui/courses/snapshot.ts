import type { CourseListing } from '$lib/shared/courses';
import { ask } from '../ask';

const ASK_EVERY_MS = 250;
const ASK_FOR_MS = 10 * 60_000;
/** Browser and server may disagree a little about the time. */
const CLOCK_SLACK_MS = 60_000;

interface Answer {
  readonly snapshot: { readonly takenAt: number } | null;
  readonly state: string | null;
}

/**
 * Has a snapshot of a course taken and waits until what it holds has been read.
 * @param tell told what is going on
 * @throws Error with words for people
 */
export async function snapshotOf(c: CourseListing, tell: (said: string) => void): Promise<void> {
  tell(`Looking into ${c.title}, ${c.system}…`);
  const began = Date.now();
  const address = `/api/courses/${encodeURIComponent(c.id)}/snapshot`;
  await ask(address, {});
  while (Date.now() - began < ASK_FOR_MS) {
    const { snapshot, state } = (await (await fetch(address)).json()) as Answer;
    const fresh = snapshot !== null && snapshot.takenAt >= began - CLOCK_SLACK_MS;
    if (fresh && state === 'ready') return;
    if (state === 'failed') throw new Error(`What ${c.title} gave could not be read.`);
    await new Promise((done) => setTimeout(done, ASK_EVERY_MS));
  }
  throw new Error(`${c.system} did not give the course in ten minutes.`);
}
