// <itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>2</fieldentry
// >…
import { parseNumber } from '../../model/number.ts';
import type { MetaField, PointsSource } from '../../model/holding.ts';
import { child, descendants, elements, textOf, type XmlElement } from '../../xml/tree.ts';

/** Every metadata field of an item, assessment, section or bank, by name and in order. */
export function readMetadata(parent: XmlElement): MetaField[] {
  const fields: MetaField[] = [];
  const holders = [child(parent, 'itemmetadata'), ...elements(parent, 'qtimetadata')].filter(
    (e) => e !== null,
  );
  for (const holder of holders) {
    for (const field of descendants(holder, 'qtimetadatafield')) {
      const label = child(field, 'fieldlabel');
      const entry = child(field, 'fieldentry');
      if (label) fields.push({ label: textOf(label).trim(), value: entry ? textOf(entry).trim() : '' });
    }
    for (const old of holder.children) {
      if (old.type === 'element' && old.name.startsWith('qmd_')) {
        fields.push({ label: old.name, value: textOf(old).trim() });
      }
    }
  }
  return fields;
}

/** The value of a field, compared without regard to case; null if absent. */
export function field(fields: readonly MetaField[], ...labels: string[]): string | null {
  for (const label of labels) {
    const found = fields.find((f) => f.label.toLowerCase() === label);
    if (found) return found.value;
  }
  return null;
}

const POINT_FIELDS: readonly PointsSource[] = ['cc_weighting', 'qmd_maximumscore', 'qmd_weighting'];

/** The points the metadata states, in order of precedence. */
export function statedPoints(fields: readonly MetaField[]): { source: PointsSource; value: number }[] {
  return POINT_FIELDS.flatMap((source) => {
    const value = parseNumber(field(fields, source));
    return value === null ? [] : [{ source, value }];
  });
}
