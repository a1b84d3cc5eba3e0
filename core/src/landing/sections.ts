import { jaccard } from '../match/likeness.ts';
import { foldName } from '../model/foldName.ts';
import type { CourseSection, SectionBy } from './types.ts';

interface SectionMatch {
  readonly section: string | null;
  readonly by: SectionBy;
}

/** Below this two names are not taken for each other. */
const SIMILAR = 0.5;

/**
 * Where each section of the source lands: in the section of the same name; else in one whose name is alike,
 * to be looked at; else nowhere yet. Position counts only on request. Each section of the destination takes
 * any number.
 */
export function matchSections(
  source: readonly CourseSection[],
  destination: readonly CourseSection[],
  { byPosition = false }: { readonly byPosition?: boolean } = {},
): Map<string, SectionMatch> {
  const byName = new Map<string, CourseSection>();
  for (const d of destination) if (!byName.has(foldName(d.name))) byName.set(foldName(d.name), d);
  return new Map(
    source.map((s, at): [string, SectionMatch] => {
      if (byPosition) {
        const there = destination[at];
        return [s.id, there ? { section: there.id, by: 'position' } : { section: null, by: 'none' }];
      }
      const same = foldName(s.name) === '' ? undefined : byName.get(foldName(s.name));
      if (same) return [s.id, { section: same.id, by: 'name' }];
      let best: { id: string; score: number } | null = null;
      for (const d of destination) {
        const score = alike(s.name, d.name);
        if (score >= SIMILAR && score > (best?.score ?? 0)) best = { id: d.id, score };
      }
      return [s.id, best ? { section: best.id, by: 'similar' } : { section: null, by: 'none' }];
    }),
  );
}

/**
 * How alike two names of sections are, 0 to 1. Numbers decide: "Week 5: Tides" is like "Week 5" and "5.
 * Tides", and never like "Week 6: Tides".
 */
export function alike(a: string, b: string): number {
  const [left, right] = [words(a), words(b)];
  const [n, m] = [left.filter(isNumber), right.filter(isNumber)];
  if (n.length > 0 && m.length > 0 && !n.some((x) => m.includes(x))) return 0;
  const shared = jaccard(new Set(left), new Set(right));
  const within = left.every((w) => right.includes(w)) || right.every((w) => left.includes(w));
  return left.length === 0 || right.length === 0 ? 0 : within ? Math.max(shared, SIMILAR) : shared;
}

const isNumber = (word: string): boolean => /^\d+$/u.test(word);
const words = (name: string): string[] =>
  foldName(name)
    .split(' ')
    .filter((w) => w !== '')
    .map((w) => (isNumber(w) ? String(Number(w)) : w));
