import type { Run } from '../document/block.ts';
import { textRun } from '../document/block.ts';
import { entriesFor, runsOf, type AnswerList } from './answerLists.ts';
import { sayKey, type KeySource } from './layout.ts';
import { marksIn } from './marks.ts';
import { namedChoices } from './named.ts';
import type { ProposedRole } from './roles.ts';
import { partText, type Part, type RawItem } from './raw.ts';

/** What one source says is right in one item. */
interface SaidKey {
  /** Places of choices from 0; empty where the item has none or none is named. */
  readonly choices: readonly number[];
  /** The value as it is written; '' for a mark. */
  readonly value: string;
  readonly runs: readonly Run[];
  /** An explanation that follows the key in the same place. */
  readonly rest: string;
  readonly sure: boolean;
}

/** A place where keys stand, and how well it answers for the items. */
export interface KeyEvidence {
  readonly source: KeySource;
  readonly said: ReadonlyMap<RawItem, SaidKey>;
  /** -1 to 1: the share of items it answers, less those it answers in a way that cannot be. */
  readonly score: number;
}

/** How far each mark is to be trusted: what is put there on purpose more than what is also mere emphasis. */
const TRUST: Readonly<Record<string, number>> = {
  sign: 0.97,
  highlight: 0.96,
  bold: 0.93,
  underline: 0.9,
  colour: 0.9,
  italic: 0.8,
  strike: 0.4,
};
/** Fewer than this share of items, and it is no place of keys. */
export const ENOUGH = 0.4;

/** Every place where keys may stand, the best first. */
export function keyEvidence(
  items: readonly RawItem[],
  roles: ReadonlyMap<string, ProposedRole>,
  lists: readonly AnswerList[],
  from: 'list' | 'file' = 'list',
): KeyEvidence[] {
  const out: KeyEvidence[] = [];
  for (const [folded, role] of roles) if (role.role === 'key') out.push(byLine(items, folded, role));
  if (lists.length > 0) out.push(byList(items, lists, from));
  const fronts = byFront(items);
  if (fronts) out.push(fronts);
  for (const [mark, byItem] of marksIn(items)) out.push(byMark(items, mark, byItem));
  return out.filter((e) => e.said.size > 0).sort((a, b) => b.score - a.score);
}

function scored(
  source: KeySource,
  said: Map<RawItem, SaidKey>,
  of: number,
  wrong: number,
  trust: number,
): KeyEvidence {
  return { source, said, score: ((said.size - 2 * wrong) / Math.max(1, of)) * trust };
}

/** `1-c, 2-a`: what belongs together, and no choice. */
const PAIRS = /^(?:[\s,;|(]*(?:\p{L}|\p{Nd}{1,2})\s*[-–—=:→.)]+\s*(?:\p{L}|\p{Nd}{1,2})\)?){2,}[.\s]*$/u;

function byLine(items: readonly RawItem[], folded: string, { name, sure }: ProposedRole): KeyEvidence {
  const said = new Map<RawItem, SaidKey>();
  let wrong = 0;
  for (const item of items) {
    const field = item.fields.find((f) => f.folded === folded);
    if (!field || field.parts.length === 0) continue;
    const key = keyFrom(partText(field.parts), runsOfParts(field.parts), item, sure >= 0.8);
    if (item.choices.length > 1 && key.choices.length === 0 && !PAIRS.test(key.value)) wrong += 1;
    said.set(item, key);
  }
  // Where marks say what is right of the choices, lines say it of the others alone.
  const asked = [...said.keys()].some((i) => i.choices.length > 1)
    ? items.length
    : items.filter((i) => i.choices.length < 2).length;
  return scored({ by: 'line', name }, said, Math.max(said.size, asked * 0.5), wrong, 1);
}

function byList(items: readonly RawItem[], lists: readonly AnswerList[], by: 'list' | 'file'): KeyEvidence {
  const runs = runsOf(items);
  const said = new Map<RawItem, SaidKey>();
  let wrong = 0;
  const clear = runs.length === lists.length || (runs.length === 1 && lists.length === 1);
  for (const [item, entry] of entriesFor(runs, lists)) {
    const key = keyFrom(entry.value, entry.runs, item, clear);
    if (item.choices.length > 1 && key.choices.length === 0) wrong += 1;
    said.set(item, key);
  }
  return scored({ by }, said, items.length, wrong, 1);
}

function byFront(items: readonly RawItem[]): KeyEvidence | null {
  const said = new Map<RawItem, SaidKey>();
  let wrong = 0;
  for (const item of items) {
    if (!item.front) continue;
    const key = keyFrom(item.front, [textRun(item.front)], item, true);
    if (item.choices.length > 1 && key.choices.length === 0) wrong += 1;
    said.set(item, key);
  }
  return said.size === 0 ? null : scored({ by: 'front' }, said, items.length, wrong, 0.98);
}

function byMark(
  items: readonly RawItem[],
  mark: string,
  byItem: ReadonlyMap<RawItem, number[]>,
): KeyEvidence {
  const said = new Map<RawItem, SaidKey>();
  const chosen = items.filter((i) => i.choices.length > 1);
  let wrong = 0;
  let several = 0;
  for (const [item, at] of byItem) {
    if (at.length === item.choices.length) wrong += 1;
    else {
      if (at.length > 1) several += 1;
      said.set(item, { choices: at, value: '', runs: [], rest: '', sure: true });
    }
  }
  const clean = said.size / Math.max(1, chosen.length) >= 0.8 && chosen.length >= 2 && wrong === 0;
  // Two marks in one item are two keys where that is met more than once, and perhaps a slip where it is not.
  const severalUsual = several >= 2 && several >= said.size * 0.1;
  for (const [item, key] of said)
    if (!clean || (key.choices.length > 1 && !severalUsual)) said.set(item, { ...key, sure: false });
  const trust = mark.startsWith('word ') ? 0.95 : (TRUST[mark] ?? 0.5);
  return scored({ by: 'mark', mark }, said, chosen.length, wrong, trust);
}

const runsOfParts = (parts: readonly Part[]): Run[] =>
  parts.flatMap((p, at) => [
    ...(at === 0 ? [] : [p.joins ? textRun(' ') : ({ kind: 'break' } as const)]),
    ...p.runs,
  ]);

function keyFrom(value: string, runs: readonly Run[], item: RawItem, sure: boolean): SaidKey {
  const named = item.choices.length > 1 ? namedChoices(value, item) : null;
  return {
    choices: named?.choices ?? [],
    value,
    runs,
    rest: named?.rest ?? '',
    sure: sure && (item.choices.length > 1 ? (named?.sure ?? false) : true),
  };
}

/** What is right in an item, and why it may be doubted. */
export interface SettledKey extends SaidKey {
  readonly source: KeySource;
  /** Another place says otherwise, in its words. */
  readonly against: string | null;
}

/** The key of each item: the first place that says one; where another contradicts, it is not sure. */
export function settleKeys(
  items: readonly RawItem[],
  evidence: readonly KeyEvidence[],
): Map<RawItem, SettledKey> {
  const used = evidence.filter((e) => e.score >= (e.source.by === 'mark' ? ENOUGH / 2 : 0));
  const out = new Map<RawItem, SettledKey>();
  for (const item of items) {
    const said = used.flatMap((e) => {
      const key = e.said.get(item);
      const says = key && (item.choices.length < 2 || key.choices.length > 0 || PAIRS.test(key.value));
      // A place that answers few items may be no place of keys at all.
      return says ? [{ key: { ...key, sure: key.sure && e.score >= ENOUGH }, source: e.source }] : [];
    });
    const [first, ...others] = said;
    if (!first) continue;
    const other = others.find(({ key }) => !agree(key, first.key, item)) ?? unheard(item, used, first.source);
    out.set(item, {
      ...first.key,
      sure: first.key.sure && !other,
      source: first.source,
      against: other ? sayKey(other.source) : null,
    });
  }
  return out;
}

/** The keys that somebody has pointed at: nothing else counts where there is one. */
export function keysByHand(items: readonly RawItem[]): Map<RawItem, SettledKey> {
  const out = new Map<RawItem, SettledKey>();
  for (const item of items) {
    const parts = item.fields.flatMap((f) => (f.role === 'key' ? f.parts : []));
    if (parts.length === 0) continue;
    const key = keyFrom(partText(parts), runsOfParts(parts), item, true);
    out.set(item, { ...key, source: { by: 'hand' }, against: null });
  }
  return out;
}

/** A place that says something of an item which names none of its choices. */
function unheard(
  item: RawItem,
  used: readonly KeyEvidence[],
  first: KeySource,
): { readonly source: KeySource } | undefined {
  if (item.choices.length < 2) return undefined;
  return used.find(({ said, source }) => {
    const key = source === first ? undefined : said.get(item);
    return key && key.choices.length === 0 && key.value !== '' && !PAIRS.test(key.value);
  });
}

const agree = (a: SaidKey, b: SaidKey, item: RawItem): boolean =>
  item.choices.length < 2
    ? true
    : a.choices.length === b.choices.length && a.choices.every((c) => b.choices.includes(c));
