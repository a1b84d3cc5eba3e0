import { parseNumber } from '../model/number.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Item } from '../model/holding.ts';
import { ruleHoldsFor, originOfFields, proposeReadings, type ReadingRule } from '../model/readingRule.ts';

/** Applies confirmed readings of private fields, and proposes others that their values suggest. */
export function applyRules(
  items: readonly Item[],
  rules: readonly ReadingRule[],
  add: (found: Finding) => void,
): Item[] {
  const origin = originOfFields(items);
  const holding = rules.filter((r) => ruleHoldsFor(r, origin));
  const said = new Set(holding.map((r) => r.label.toLowerCase()));
  for (const { label, means, values } of proposeReadings(items, origin)) {
    if (!said.has(label.toLowerCase()) && !(means === 'category' && isCategory(items, label)))
      add(finding('reading-proposed', 'note', {}, { label, means, origin, values: values.join(', ') }));
  }
  return holding.length === 0 ? [...items] : items.map((item) => applyTo(item, holding));
}

/** Whether a field says what the category is already. */
const isCategory = (items: readonly Item[], label: string): boolean =>
  items.every((item) => {
    const field = item.metadata.find((f) => f.label === label);
    return !field || field.value === item.category;
  });

function applyTo(item: Item, rules: readonly ReadingRule[]): Item {
  let read = item;
  for (const rule of rules) {
    const field = item.metadata.find((f) => f.label.toLowerCase() === rule.label.toLowerCase());
    if (!field || field.value === '') continue;
    const points = parseNumber(field.value);
    if (rule.means === 'points' && points !== null)
      read = { ...read, pointsSources: [{ source: 'rule', value: points }, ...read.pointsSources] };
    else if (rule.means === 'category') read = { ...read, category: field.value };
  }
  return read;
}
