import type { ItemSpec } from './items.ts';
import { zip } from './zip.ts';
import { assessmentXml, bankXml, PLAIN } from './qti12.ts';

const WORDS =
  'buoy beacon bearing chart course current deviation draught fairway fix harbour heading isobar knot landfall latitude lead light log longitude mark meridian neap pilot plot range reef rhumb sector sound spring stream tide transit variation wake wind'.split(
    ' ',
  );

/** A small generator with a seed, so that the same number of items gives the same bytes. */
function generator(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** `count` lifelike items of all the kinds the demo has; deterministic. */
export function largeItems(count: number, seed = 1): ItemSpec[] {
  const random = generator(seed);
  const word = (): string => WORDS[Math.floor(random() * WORDS.length)]!;
  const phrase = (n: number): string => Array.from({ length: n }, word).join(' ');
  return Array.from({ length: count }, (_, at): ItemSpec => {
    const common = {
      id: `large-${at + 1}`,
      title: `Exercise ${at + 1}`,
      points: 1 + (at % 4),
      category: `Chapter ${1 + (at % 12)}`,
      stem: `<p>${at + 1}. When the ${phrase(6)} and the ${phrase(4)} meet, what about the <em>${word()}</em>?</p>`,
    };
    switch (at % 5) {
      case 0:
      case 1:
        return {
          ...common,
          kind: 'single',
          shuffle: true,
          choices: Array.from({ length: 4 }, (__, k) => ({
            text: `${phrase(3)} ${k + 1}`,
            right: k === at % 4,
          })),
          feedback: phrase(8),
        };
      case 2:
        return {
          ...common,
          kind: 'multiple',
          perChoice: at % 2 === 0,
          choices: Array.from({ length: 5 }, (__, k) => ({ text: `${phrase(2)} ${k + 1}`, right: k < 2 })),
        };
      case 3:
        return {
          ...common,
          kind: 'number',
          value: Math.round(random() * 3600) / 10,
          tolerance: 0.5,
          unit: 'NM',
        };
      default:
        return { ...common, kind: 'text', answers: [word(), phrase(2)] };
    }
  });
}

/** A plain QTI 1.2 package of `count` items in banks of at most 500. */
export const largePackage = (count: number, seed = 1): Uint8Array => packed(largeItems(count, seed));

function packed(items: readonly ItemSpec[]): Uint8Array {
  const files: Record<string, string> = {
    'quiz.xml': assessmentXml(
      {
        id: 'large',
        title: 'A large quiz',
        items: [],
        draws: [{ title: 'Some', bank: 'bank-1', pick: 10, pointsEach: 1 }],
      },
      PLAIN,
    ),
  };
  for (let at = 0; at * 500 < items.length; at++)
    files[`bank-${at + 1}.xml`] = bankXml(
      `bank-${at + 1}`,
      items.slice(at * 500, at * 500 + 500),
      PLAIN,
      `Bank ${at + 1}`,
    );
  return zip(files);
}

/** What comes back of a package, otherwise than it went. */
interface Truth {
  readonly counts: { readonly altered: number; readonly missing: number; readonly extra: number };
  /** Ids of the items that are altered or missing. */
  readonly ids: readonly string[];
}

/** A package that goes, one that comes back of it with known differences, and what these are. */
export function largeRound(count: number): {
  readonly there: Uint8Array;
  readonly back: Uint8Array;
  readonly truth: Truth;
} {
  const items = largeItems(count);
  const missing = (at: number): boolean => at % 1000 === 999;
  const altered = (at: number): boolean => at % 50 === 7;
  const back = items.flatMap((item, at) => {
    if (missing(at)) return [];
    return [altered(at) ? { ...item, points: item.points + 1 } : item];
  });
  const idsOf = (holds: (at: number) => boolean): string[] =>
    items.flatMap((item, at) => (holds(at) ? [item.id] : []));
  const [gone, other] = [idsOf(missing), idsOf(altered)];
  return {
    there: packed(items),
    back: packed(back),
    truth: {
      counts: { altered: other.length, missing: gone.length, extra: 0 },
      ids: [...gone, ...other],
    },
  };
}
