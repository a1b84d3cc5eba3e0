import { outlineOfPackage, outlineThing, type CourseOutline, type Landing } from '@alforja/core';
import type { Run } from '../../shared/courses.ts';
import type { LandingOrder } from '../connectors/types.ts';
import type { Matter } from './plan.ts';

/**
 * What the destination is told about a package: for each thing its name, section, place and dates; and for what
 * is there already, what stands for it.
 */
export function landingOrder(
  landings: readonly Landing[],
  { source, dest, tree }: Pick<Matter, 'source' | 'dest' | 'tree'>,
  sectionsAs: Run['sectionsAs'],
): LandingOrder {
  const from: CourseOutline = source?.outline ?? outlineOfPackage(tree);
  const positionOf = (l: Landing): number | null => {
    const section = outlineThing(from, l.kind, l.node, l.name)?.section;
    const at = from.sections.findIndex((s) => s.id === section);
    return at < 0 ? null : at;
  };
  return {
    sourceSections: (sectionsAs === 'source' ? from : dest.outline).sections.length,
    things: landings.map((l) => ({
      kind: l.kind,
      name: l.name,
      use: l.action === 'skip' ? l.there : null,
      section: l.section,
      position: positionOf(l),
      hidden: l.hidden,
      opens: l.opens,
      closes: l.closes,
      review: l.review,
    })),
  };
}
