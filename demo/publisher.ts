import type { ItemSpec } from './items.ts';
import { largeItems } from './large.ts';
import { zip } from './zip.ts';
import { assessmentXml, bankXml, PLAIN } from './qti12.ts';

/** Where the bank says that something else is right than what is; each is a place from 0. */
export const WRONG_KEYS = [20, 45, 70] as const;
export const NO_KEY = 10;
export const NO_PICTURE = [30, 60] as const;

/**
 * A publisher's bank as instructors get it: 400 items of mixed kinds in twelve chapters, from 1 to 10 points; one
 * without a key, three with a wrong one, two whose picture is missing, and a test that draws from all of it for a
 * point each.
 */
export function publisherItems(): ItemSpec[] {
  return largeItems(400, 7).map((item, at): ItemSpec => {
    const priced = { ...item, id: `cn-${at + 1}`, title: '', points: 1 + ((at * 7) % 10) };
    if (priced.kind === 'single' && at === NO_KEY)
      return { ...priced, choices: priced.choices.map((c) => ({ ...c, right: false })) };
    if (priced.kind === 'single' && WRONG_KEYS.some((w) => w === at))
      return { ...priced, choices: priced.choices.map((c, k) => ({ ...c, right: k === (at + 1) % 4 })) };
    if (NO_PICTURE.some((p) => p === at))
      return {
        ...priced,
        stem: `<p><img src="images/fig-${at + 1}.png" alt="A chart of the bay">${priced.stem.slice(3)}`,
      };
    return priced;
  });
}

export const publisherBank = (): Uint8Array =>
  zip({
    'test.xml': assessmentXml(
      {
        id: 'placement',
        title: 'Placement test',
        items: [],
        draws: [{ title: 'From all chapters', bank: 'coastal', pick: 20, pointsEach: 1 }],
      },
      PLAIN,
    ),
    'bank.xml': bankXml('coastal', publisherItems(), PLAIN, 'Coastal navigation, 2nd edition'),
  });
