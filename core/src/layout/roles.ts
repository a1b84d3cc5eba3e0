import { readAmount } from './amounts.ts';
import { namedChoices } from './named.ts';
import { partText, type RawItem } from './raw.ts';
import { roleOfWord, truthOf, type Role } from './words.ts';

/** What each labelled line means, by its values first and its word second. */
export interface ProposedRole {
  readonly name: string;
  readonly role: Role;
  /** 0 to 1: whether values and word agree. */
  readonly sure: number;
}

/** The share of values that must be so for all of them to be. */
const MOST = 0.8;

/** The roles of the labels that items bear, by folded name. */
export function proposeRoles(items: readonly RawItem[]): Map<string, ProposedRole> {
  const met = new Map<string, { name: string; values: { item: RawItem; text: string }[] }>();
  for (const item of items)
    for (const { name, folded, parts, role } of item.fields) {
      if (role !== undefined) continue;
      const entry = met.get(folded) ?? { name, values: [] };
      entry.values.push({ item, text: partText(parts) });
      met.set(folded, entry);
    }
  const out = new Map<string, ProposedRole>();
  for (const [folded, { name, values }] of met) out.set(folded, { name, ...roleFor(folded, values) });
  // One label is the key: what others say of it agrees or is something else.
  const keys = [...out]
    .filter(([, r]) => r.role === 'key')
    .sort(([a, x], [b, y]) => y.sure - x.sure || met.get(b)!.values.length - met.get(a)!.values.length);
  for (const [folded, role] of keys.slice(1)) {
    const first = new Set(met.get(keys[0]![0])!.values.map((v) => v.item));
    const besides = met.get(folded)!.values.some((v) => first.has(v.item));
    if (besides) out.set(folded, { ...role, role: 'noted', sure: role.sure / 2 });
  }
  return out;
}

function roleFor(
  folded: string,
  values: readonly { item: RawItem; text: string }[],
): { role: Role; sure: number } {
  const word =
    roleOfWord(folded) ?? roleOfWord(folded.split(' ').at(-1)!) ?? roleOfWord(folded.split(' ')[0]!);
  const texts = values.map((v) => v.text);
  const share = (test: (text: string) => boolean): number => texts.filter(test).length / texts.length;
  const chosen = values.filter((v) => v.item.choices.length > 1);
  const names =
    chosen.filter((v) => namedChoices(v.text, v.item) !== null).length / Math.max(1, chosen.length);
  const distinct = new Set(texts.map((t) => t.toLowerCase())).size;
  if (
    chosen.length > 0 &&
    names >= MOST &&
    word !== 'objective' &&
    word !== 'page' &&
    word !== 'difficulty' &&
    word !== 'points'
  ) {
    // A number names a choice only where choices are numbered; what names choices and says so is the key.
    if (word === 'key') return { role: 'key', sure: 1 };
    if (word === null && chosen.length >= 2) return { role: 'key', sure: 0.8 };
  }
  if (word !== null) {
    if (word === 'key' && chosen.length > 0 && names < 0.5) {
      // "Solution: because ..." explains; it names nothing.
      return { role: share((t) => t.length > 40) > 0.5 ? 'rationale' : 'key', sure: 0.4 };
    }
    if (word === 'points')
      return share((t) => readAmount(t) !== null) >= MOST
        ? { role: 'points', sure: 1 }
        : { role: 'noted', sure: 0.5 };
    return { role: word, sure: 1 };
  }
  if (chosen.length === 0 && values.length >= 2 && share((t) => truthOf(t) !== null) >= MOST)
    return { role: 'key', sure: 0.7 };
  if (values.length >= 3 && share((t) => t.length > 50) > 0.5 && distinct > values.length / 2)
    return { role: 'rationale', sure: 0.5 };
  return { role: 'noted', sure: 0.6 };
}
