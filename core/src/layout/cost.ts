import { between } from './heads.ts';
import { marksOf } from './marks.ts';
import { partsOf, PLAIN_CHOICES, type Cut, type RawItem, type Segmented } from './raw.ts';

/** What a hypothesis leaves unexplained, added up: the lower the better. Each part can be shown. */
export interface Cost {
  readonly total: number;
  readonly parts: Readonly<Record<string, number>>;
}

const WEIGHTS = {
  /** A line that is in nothing. */
  loose: 1,
  /** A line within an item whose label nobody has a use for. */
  unusedLabel: 1.2,
  stemEmpty: 4,
  oneChoice: 3,
  /** An item of which nothing is known but its text. */
  bare: 0.9,
  gap: 1,
  furtherParagraph: 0.3,
  /** An item with more or fewer choices than most. */
  uneven: 0.08,
  shape: 0.5,
  unlabelled: 0.3,
  unlabelledChoice: 0.25,
  /** The same where one of them bears a sign. */
  signedChoice: 0.05,
  /** A line that is taken to go on in the next one, and ends long before the others do. */
  shortWrap: 0.6,
  tooMany: 2,
} as const;
const MOST_CHOICES = 10;

/** The cost of one way to cut a document. */
export function costOf(segmented: Segmented, cut: Cut): Cost {
  const parts: Record<string, number> = {};
  const add = (name: keyof typeof WEIGHTS, count: number): void => {
    if (count > 0) parts[name] = (parts[name] ?? 0) + count * WEIGHTS[name];
  };
  const { items } = segmented;
  add('loose', between(segmented).loose.length);
  add(
    'shape',
    cut.choices.length + (cut.question === null ? 2 : 0) + (cut.choices.includes(PLAIN_CHOICES) ? 4 : 0),
  );
  const usual = commonest(items.map((i) => i.choices.length).filter((n) => n > 0));
  const full = cut.wraps ? fullWidth(items) : 0;
  let before = 0;
  for (const item of items) {
    if (item.stem.length === 0) add('stemEmpty', 1);
    if (item.choices.length === 1) add('oneChoice', 1);
    if (item.choices.length > MOST_CHOICES) add('tooMany', 1);
    if (item.choices.length === 0 && item.fields.length === 0) add('bare', 1);
    if (item.choices.length > 0 && item.choices.length !== usual) add('uneven', 1);
    add('unusedLabel', unused(item));
    add(
      'furtherParagraph',
      item.stem.filter(
        (p, at) =>
          at > 0 &&
          !p.joins &&
          !p.line.continues &&
          !p.line.table &&
          p.line.text.replace(/\uFFFC/gu, '').trim() !== '',
      ).length,
    );
    if (item.label === null) add('unlabelled', 1);
    else if (item.label.ordinal > 0) {
      if (item.label.ordinal !== before + 1 && item.label.ordinal !== 1) add('gap', 1);
      before = item.label.ordinal;
    }
    if (cut.choices.includes(PLAIN_CHOICES)) {
      const signed = item.choices.filter((c) => marksOf(c).has('sign')).length;
      const said = signed > 0 && signed < item.choices.length;
      add(said ? 'signedChoice' : 'unlabelledChoice', item.choices.filter((c) => c.label === null).length);
    }
    if (cut.wraps) add('shortWrap', shortWraps(item, full));
  }
  const total = Object.values(parts).reduce((sum, n) => sum + n, 0);
  return { total: items.length === 0 ? Infinity : total, parts };
}

/** How long lines are that end where the paper does. */
function fullWidth(items: readonly RawItem[]): number {
  const lengths = items.flatMap((i) => partsOf(i).map((p) => p.line.text.length)).sort((a, b) => a - b);
  return lengths[Math.floor(lengths.length * 0.95)] ?? 0;
}
function shortWraps(item: RawItem, full: number): number {
  const lists = [item.stem, ...item.choices.map((c) => c.parts), ...item.fields.map((f) => f.parts)];
  return lists.reduce(
    (sum, parts) =>
      sum + parts.filter((p, at) => p.joins && parts[at - 1]!.line.text.length < full * 0.55).length,
    0,
  );
}

function unused(item: RawItem): number {
  const inStem = item.stem.filter(
    (p, at) => (at > 0 || p.line !== item.start) && p.line.labels.length > 0 && !p.line.continues,
  );
  const inChoices = item.choices.flatMap((c) => c.parts.slice(1)).filter((p) => p.line.labels.length > 0);
  return inStem.length + inChoices.length;
}

function commonest(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0] ?? 0;
}
