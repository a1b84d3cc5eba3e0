import { cut } from './cut.ts';
import { z } from 'zod';
import type { Item, MetaField } from './holding.ts';

/** What a metadata field of unknown name can stand for. */
export const MEANINGS = ['points', 'category', 'type'] as const;
export type Meaning = (typeof MEANINGS)[number];

/** A reading that somebody has confirmed: in packages of this origin, this field means that. */
export const ReadingRule = z.object({
  name: z.string().trim().min(1).max(200),
  /** What tells packages of one origin (see originOfFields); "*" is any. */
  origin: z.string().min(1).max(500),
  label: z.string().min(1).max(300),
  means: z.enum(MEANINGS),
});
export type ReadingRule = z.infer<typeof ReadingRule>;

/** Fields whose meaning the standards or their profiles give. */
const KNOWN =
  /^(?:qmd_|cc_|label$|maxattempts$|duration$|toolname$|toolversion$|timedependent$|bank_title$|assessmentcontrol\.|outcomes_processing$)/iu;

const VENDOR = /^(?:qmd_toolvendor|toolname)$/iu;

/** Asks something of labels, each once: a package has few, and very many fields. */
function ofLabels(asked: (label: string) => boolean): (field: MetaField) => boolean {
  const known = new Map<string, boolean>();
  return ({ label }) => {
    let answer = known.get(label);
    if (answer === undefined) known.set(label, (answer = asked(label)));
    return answer;
  };
}
const privately = (): ((field: MetaField) => boolean) => ofLabels((label) => !KNOWN.test(label));

/**
 * What packages of one origin have in common: the tool they name, else the names of their private fields.
 * Two exports of one system share it, whatever they hold.
 */
export function originOfFields(items: readonly Pick<Item, 'metadata'>[]): string {
  const [isPrivate, namesVendor] = [privately(), ofLabels((label) => VENDOR.test(label))];
  const labels = new Set<string>();
  for (const { metadata } of items)
    for (const field of metadata) {
      if (field.value !== '' && namesVendor(field)) return `tool ${field.value.toLowerCase()}`;
      if (isPrivate(field)) labels.add(field.label);
    }
  const folded = new Set([...labels].map((label) => label.toLowerCase()));
  return folded.size > 0 ? cut(`fields ${[...folded].sort().join(' ')}`, 500) : 'standard fields only';
}

export const ruleHoldsFor = (rule: ReadingRule, origin: string): boolean =>
  rule.origin === '*' || rule.origin === origin;

export interface Proposal {
  readonly label: string;
  readonly means: Meaning;
  readonly origin: string;
  /** A few of the values it was told by. */
  readonly values: readonly string[];
  readonly items: number;
}

const KIND_WORDS = /choice|select|essay|true|false|blank|fill|match|numer|short|order|hotspot|open|text/iu;
const POINT_WORDS = /point|score|mark|grade|weight|worth|credit|value|max/iu;
const LEAST_ITEMS = 2;

/**
 * Readings that the values of private fields suggest; nothing is taken for granted until somebody says so.
 */
export function proposeReadings(
  items: readonly Pick<Item, 'metadata'>[],
  origin = originOfFields(items),
): Proposal[] {
  const isPrivate = privately();
  const values = new Map<string, string[]>();
  for (const item of items)
    for (const field of item.metadata)
      if (isPrivate(field) && field.value !== '') {
        const known = values.get(field.label);
        if (known) known.push(field.value);
        else values.set(field.label, [field.value]);
      }
  return [...values].flatMap(([label, all]): Proposal[] => {
    if (all.length < LEAST_ITEMS) return [];
    const means = meaningOf(label, all);
    return means ? [{ label, means, origin, values: [...new Set(all)].slice(0, 5), items: all.length }] : [];
  });
}

function meaningOf(label: string, values: readonly string[]): Meaning | null {
  const distinct = new Set(values);
  const numbers = values.map(Number);
  if (numbers.every((n) => Number.isFinite(n) && n >= 0 && n <= 1000)) {
    // A running number is no worth: points repeat, or the field says what it is.
    return POINT_WORDS.test(label) || distinct.size <= Math.max(2, values.length / 2) ? 'points' : null;
  }
  if (values.every((v) => v.length <= 60 && KIND_WORDS.test(v)) && distinct.size <= 12) return 'type';
  const repeated = distinct.size < values.length || distinct.size === 1;
  return repeated && values.every((v) => v.length <= 200) ? 'category' : null;
}
