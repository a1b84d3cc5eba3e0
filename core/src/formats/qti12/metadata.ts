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
  if (last.of !== fields) last = { of: fields, values: byLabel(fields) };
  for (const label of labels) {
    const found = last.values.get(label);
    if (found !== undefined) return found;
  }
  return null;
}

/** Of the last fields asked about: several are asked of one item in a row. */
let last: { readonly of: readonly MetaField[]; readonly values: ReadonlyMap<string, string> } = {
  of: [],
  values: new Map(),
};

/** The first value of each label. */
function byLabel(fields: readonly MetaField[]): ReadonlyMap<string, string> {
  const values = new Map<string, string>();
  for (const { label, value } of fields) {
    const folded = label.toLowerCase();
    if (!values.has(folded)) values.set(folded, value);
  }
  return values;
}

const POINT_FIELDS: readonly PointsSource[] = ['cc_weighting', 'qmd_maximumscore', 'qmd_weighting'];

/** The points the metadata states, in order of precedence. */
export function statedPoints(fields: readonly MetaField[]): { source: PointsSource; value: number }[] {
  return POINT_FIELDS.flatMap((source) => {
    const value = parseNumber(field(fields, source));
    return value === null ? [] : [{ source, value }];
  });
}
