import type { CourseOutline, Landing } from '@alforja/core';

/** What the steps of a sending come to, in words. */

/** "39 items in one package, QTI 1.2; the rubrics in a file of their own". */
export function saysParts(
  written: { readonly items: number; readonly packages: readonly unknown[]; readonly rubrics: unknown },
  target: string,
  landings: readonly Pick<Landing, 'existing'>[],
): string {
  const { items, packages, rubrics } = written;
  const said = [
    packages.length === 0
      ? ''
      : `${items} items in ${packages.length === 1 ? 'one package' : `${packages.length} packages`}, ${target}`,
    rubrics ? 'the rubrics in a file of their own' : '',
  ].filter((s) => s !== '');
  if (said.length > 0) return said.join('; ');
  return landings.length > 0 && landings.every((l) => l.existing === 'same')
    ? 'nothing to write: everything is already there'
    : 'nothing to write: everything was left out';
}

/** What has landed of an import that broke off, and how much has not. */
export function saysHalfWay(
  landings: readonly Landing[],
  outline: CourseOutline,
  created: readonly string[],
): string {
  const there = outline.things
    .filter((t) => created.includes(t.id))
    .map((t) => t.title || 'one without a name');
  const going = landings.filter((l) => l.action !== 'skip').length;
  return there.length === 0
    ? 'Nothing has arrived.'
    : `Arrived: ${there.join(', ')}. Not arrived: ${Math.max(0, going - there.length)}.`;
}
