import { foldName } from '../model/foldName.ts';
import { dateTrouble } from './dates.ts';
import type { CourseOutline, Landing } from './types.ts';

/**
 * What a plan cannot be sent with, in words.
 * @param outline the course it lands in; null for a file, where names may repeat and nothing is in the way
 */
export function planTroubles(landings: readonly Landing[], outline: CourseOutline | null): string[] {
  const going = landings.filter((l) => l.action !== 'skip');
  const out = going.flatMap((l) => [
    ...(l.name.trim() === '' ? [`A ${l.kind} has no name.`] : []),
    ...dateTroubles(l),
    ...(outline ? placeTroubles(l, outline) : []),
  ]);
  return [...new Set([...out, ...(outline ? repeatedNames(going) : [])])];
}

function dateTroubles(l: Landing): string[] {
  const trouble = dateTrouble(l);
  if (trouble !== 'equal' && trouble !== 'reversed') return [];
  return [`“${l.name}” would close ${trouble === 'equal' ? 'at the moment it opens' : 'before it opens'}.`];
}

function placeTroubles(l: Landing, outline: CourseOutline): string[] {
  const unplaced = l.section === null && l.sectionBy === 'none' && outline.sections.length > 0;
  const gone = l.section !== null && !outline.sections.some((s) => s.id === l.section);
  const sitting = outline.things.some(
    (t) =>
      t.kind === l.kind &&
      foldName(t.title) === foldName(l.name) &&
      !(l.action === 'replace' && t.id === l.there),
  );
  return [
    ...(unplaced ? [`“${l.name}” has no section there yet: choose one.`] : []),
    ...(gone ? [`“${l.name}” is to land in a section that is no longer there.`] : []),
    ...(sitting ? [`The name “${l.name}” is taken in that course.`] : []),
  ];
}

function repeatedNames(going: readonly Landing[]): string[] {
  const named = new Map<string, { name: string; count: number }>();
  for (const l of going) {
    const name = foldName(l.name);
    const had = named.get(`${l.kind} ${name}`);
    named.set(`${l.kind} ${name}`, { name, count: (had?.count ?? 0) + 1 });
  }
  return [...named.values()]
    .filter(({ count }) => count > 1)
    .map(({ name, count }) => `The name “${name}” is given ${count} times.`);
}
