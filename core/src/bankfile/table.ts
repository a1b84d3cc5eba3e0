import { asTextCell } from '../model/formulaCells.ts';
import { plainNumber } from '../model/number.ts';
import { letterOf } from '../model/letterOf.ts';
import type { SaidBank } from './banks.ts';
import { LABELS, textOf } from './words.ts';

/** Banks as a table: a question a row. Matching has no column of its own, and is left out by who calls this. */
export function bankRows(banks: readonly SaidBank[]): string[][] {
  const items = banks.flatMap((bank) => bank.items.map((item) => ({ bank: bank.title, item })));
  const width = Math.max(0, ...items.map(({ item }) => item.choices.length));
  const has = (test: (item: (typeof items)[number]['item']) => boolean): boolean =>
    items.some(({ item }) => test(item));
  const feedback = has((i) => i.feedback.length > 0);
  const hint = has((i) => i.hints.length > 0);
  const category = has((i) => i.category !== '');
  const fields = [...new Set(items.flatMap(({ item }) => item.fields.map((f) => f.label)))];
  const several = banks.length > 1;
  const header = [
    ...(several ? ['Bank'] : []),
    'Question',
    ...Array.from({ length: width }, (_, at) => `Choice ${letterOf(at)}`),
    LABELS.answer,
    LABELS.points,
    ...(feedback ? [LABELS.feedback] : []),
    ...(hint ? [LABELS.hint] : []),
    ...(category ? [LABELS.category] : []),
    ...fields,
  ];
  return [
    header,
    ...items.map(({ bank, item }) => [
      ...(several ? [bank] : []),
      textOf(item.stem),
      ...Array.from({ length: width }, (_, at) => (item.choices[at] ? textOf(item.choices[at]) : '')),
      item.answer || textOf(item.model),
      plainNumber(item.points),
      ...(feedback ? [item.feedback.map(textOf).join(' ')] : []),
      ...(hint ? [item.hints.map(textOf).join(' ')] : []),
      ...(category ? [item.category] : []),
      ...fields.map((label) => item.fields.find((f) => f.label === label)?.value ?? ''),
    ]),
  ].map((row) => row.map(asTextCell));
}
