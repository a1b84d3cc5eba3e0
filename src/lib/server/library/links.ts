import { type LinkLine, type LinkTest, MOST_LINKS } from '../../shared/links.ts';
import { inside } from '../connectors/door.ts';
import { followLink } from '../connectors/followLink.ts';
import { worked } from './worked.ts';

/** Whether links open: each is followed with care, a few at a time. */

const AT_ONCE = 6;
/** What an LTI tool may answer to somebody who does not come from a course. */
const LAUNCH_REFUSALS: ReadonlySet<LinkTest['why']> = new Set(['refused', 'asks-to-sign-in']);

/** Follows links, the same address once; at most `MOST_LINKS` of them. */
export async function testLinks(lines: readonly LinkLine[]): Promise<LinkTest[]> {
  const byUrl = new Map(lines.map((l) => [l.url, l]));
  const waiting = [...byUrl.values()].slice(0, MOST_LINKS);
  const done: LinkTest[] = [];
  const work = async (): Promise<void> => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const test = await followLink(next.url, { inside });
      const launches = next.kind === 'lti' && LAUNCH_REFUSALS.has(test.why);
      done.push(launches ? { ...test, why: 'launch-only' } : test);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  return done;
}

/** The links of a package; null where there is no such package. @throws WorkTrouble */
export const linksOfPackage = (packageId: string): Promise<LinkLine[] | null> =>
  worked('links', { packageId });
