import { outlineOfPackage, outlineThing, type CourseOutline, type Landing } from '@alforja/core';
import type { Sending } from '../../shared/transfers.ts';
import type { LandingOrder } from '../connectors/types.ts';
import type { TransferParts } from './plan.ts';

/**
 * What the destination is told about a package: for each thing its name, section, place and dates; and for
 * what is there already, what stands for it.
 */
export function landingOrder(
  landings: readonly Landing[],
  { source, dest }: Pick<TransferParts, 'source' | 'dest'>,
  sectionsAs: Sending['sectionsAs'],
): LandingOrder {
  const from: CourseOutline = source.outline ?? outlineOfPackage(source.tree);
  const positionOf = (l: Landing): number | null => {
    const section = outlineThing(from, l.kind, l.node, l.name)?.section;
    const at = from.sections.findIndex((s) => s.id === section);
    return at < 0 ? null : at;
  };
  return {
    sourceSections: (sectionsAs === 'destination' && dest ? dest.snapshot.outline : from).sections.length,
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
