import type { BlockDocument } from '../document/block.ts';
import { takeAnswerLists, type AnswerList } from './answerLists.ts';
import { amountForm } from './amounts.ts';
import { costOf, type Cost } from './cost.ts';
import { foldField } from './fields.ts';
import { between, type Between } from './heads.ts';
import { hypotheses } from './hypotheses.ts';
import type { ConfirmedOfDocument } from './confirmed.ts';
import { NOTHING_SAID, type ByHand } from './hand.ts';
import { keyEvidence, keysByHand, settleKeys, type KeyEvidence, type SettledKey } from './keys.ts';
import { knownFor, looksOf } from './known.ts';
import { keySourceOf, NONE, sayKey, type KeySource, type Layout } from './layout.ts';
import { isShape } from './labels.ts';
import { linesOf, type Line } from './lines.ts';
import { proposeRoles, type ProposedRole } from './roles.ts';
import { partText, type Cut, type RawItem, type Segmented } from './raw.ts';
import { segment } from './segment.ts';
import type { ColumnRole } from './table/columns.ts';

/** A way to read a document, with what it costs. */
export interface Candidate {
  readonly cut: Cut;
  readonly cost: Cost;
}

/** A document understood: the way that explains most of it, and how sure that is. */
export interface Recognised {
  readonly document: BlockDocument;
  readonly layout: Layout;
  /** Whether the layout was found, or somebody has said it: of this document, or of such documents. */
  readonly by: 'found' | 'said' | 'known';
  /** A layout that was confirmed for such documents, and does not fit this one. */
  readonly misfit: Layout | null;
  /** What the columns are called, and what they say; null for a document. */
  readonly columns: readonly { readonly name: string; readonly role: ColumnRole }[] | null;
  /** What it looks like when nothing is known of it; null where its layout was said, and nothing else was looked for. */
  readonly looks: readonly string[] | null;
  readonly chosen: Candidate | null;
  /** The next best way to cut it; null where there is no other. */
  readonly runnerUp: Candidate | null;
  readonly items: readonly RawItem[];
  readonly between: Between;
  readonly lists: readonly AnswerList[];
  readonly roles: ReadonlyMap<string, ProposedRole>;
  readonly evidence: readonly KeyEvidence[];
  readonly keys: ReadonlyMap<RawItem, SettledKey>;
  readonly amountForm: string | null;
  /** Lines that are in nothing. */
  readonly loose: readonly Line[];
  /** Lines of lists of answers, their titles among them; and lines that somebody has set aside. */
  readonly listed: readonly Line[];
  readonly aside: readonly Line[];
}

interface Options extends Partial<ConfirmedOfDocument> {
  /** Answers from a file of their own. */
  readonly answers?: readonly AnswerList[];
}

/** Finds out how a document of questions is laid out, and reads its items by that. Texts and pages wrap their lines. */
export function recogniseDocument(
  document: BlockDocument,
  { layout = null, series = null, known = [], hand = NOTHING_SAID, answers = [] }: Options = {},
): Recognised {
  const { wraps } = document;
  const all = linesOf(document);
  const { lists: own, rest, taken } = takeAnswerLists(all, false, (l) => hand.has(l.block));
  const from = own.length > 0 ? 'list' : 'file';
  const given: Given = { document, taken, lists: from === 'list' ? own : answers, from };
  const readBy = (confirmed: Layout): Recognised | null => {
    const [only] = weighed(rest, [cutOf(confirmed, wraps)], hand);
    return only!.segmented.items.length === 0 ? null : understood(given, only!, null, confirmed);
  };
  if (layout) return { ...(readBy(layout) ?? nothing(document, all, own)), by: 'said' };
  const [best, ...others] = search(rest, wraps, hand);
  if (!best || best.segmented.items.length === 0) return nothing(document, all, own);
  const next = others.find((o) => differs(o.segmented, best.segmented)) ?? null;
  const read = understood(given, best, next, null);
  if (!looksAsked(read)) return nothing(document, all, own);
  const looks = looksOf(read.layout);
  const remembered = knownFor(looks, known);
  const meant: Layout[] = [];
  for (const [confirmed, by] of [
    // What was said of a table is not meant for a document.
    [series && (series.question === NONE || isShape(series.question)) ? series : null, 'said'],
    [remembered?.layout ?? null, 'known'],
  ] as const) {
    if (!confirmed) continue;
    meant.push(confirmed);
    const again = readBy(confirmed);
    if (again && fits(again, read)) return { ...again, by, looks };
  }
  return { ...read, looks, misfit: meant[0] ?? null };
}

/** Whether a layout that is remembered explains a document about as well as the one that was found for it. */
const fits = (remembered: Recognised, found: Recognised): boolean =>
  remembered.items.length >= found.items.length * 0.9 &&
  remembered.loose.length <= found.loose.length + found.items.length * 0.1 &&
  remembered.keys.size >= found.keys.size * 0.5;

/** Whether there is a question at all: a key, or texts that ask or leave a blank. A letter with a list in it has none. */
function looksAsked({ items, keys, layout }: Recognised): boolean {
  if (keys.size > 0) return true;
  const asking = items.filter((i) => /[?？؟]|_{2,}|\.{5,}/u.test(partText(i.stem))).length;
  if (asking * 3 >= items.length) return true;
  if (layout.question === NONE) return false;
  if (items.filter((i) => i.choices.length > 1).length >= 2) return true;
  return items.length >= 2 && items.every((i) => partText(i.stem).split(/\s+/u).length >= FEWEST_WORDS);
}
/** Numbered sentences may be questions that say what is to be done; numbered things are none. */
const FEWEST_WORDS = 5;

/** So many lines show how a document is laid out; a longer one is then read whole in the likeliest ways only. */
const SAMPLE = 3000;
const FINALISTS = 3;

function search(lines: readonly Line[], wraps: boolean, hand: ByHand): Tried[] {
  if (lines.length <= SAMPLE * 1.5) return weighed(lines, hypotheses(lines, wraps), hand);
  const start = lines.slice(0, SAMPLE);
  const likely = weighed(start, hypotheses(start, wraps), hand).slice(0, FINALISTS);
  return weighed(
    lines,
    likely.map((t) => t.cut),
    hand,
  );
}

/** Every way tried on the whole of these lines, the cheapest first. */
function weighed(lines: readonly Line[], cuts: readonly Cut[], hand: ByHand): Tried[] {
  const tried = cuts.map((cut) => {
    const segmented = segment(lines, cut, hand);
    return { cut, segmented, cost: costOf(segmented, cut) };
  });
  return tried.sort((a, b) => a.cost.total - b.cost.total);
}

type Tried = Candidate & { readonly segmented: Segmented };

const differs = (a: Segmented, b: Segmented): boolean =>
  a.items.length !== b.items.length ||
  a.items.some(
    (item, at) =>
      item.start.at !== b.items[at]!.start.at || item.choices.length !== b.items[at]!.choices.length,
  );

interface Given {
  readonly document: BlockDocument;
  readonly lists: readonly AnswerList[];
  readonly from: 'list' | 'file';
  /** The lines of its own lists. */
  readonly taken: readonly Line[];
}

function understood(
  { document, lists, from, taken }: Given,
  best: Tried,
  next: Tried | null,
  confirmed: Layout | null,
): Recognised {
  const { items } = best.segmented;
  const roles = confirmed ? confirmedRoles(confirmed) : proposeRoles(items);
  const evidence = inOrder(keyEvidence(items, roles, lists, from), confirmed);
  const keys = new Map([...settleKeys(items, evidence), ...keysByHand(items)]);
  const found = between(best.segmented);
  const form = confirmed ? confirmed.points : amountForm(items);
  const sure = sureness(best, next, items, keys, found.loose.length);
  const primary = mostly([...keys.values()].map((k) => k.source).filter((k) => k.by !== 'hand'));
  return {
    document,
    layout: {
      question: best.cut.question ?? NONE,
      choice:
        best.cut.choices.length === 0 || items.every((i) => i.choices.length === 0)
          ? NONE
          : best.cut.choices.join(' | '),
      key: primary ?? NONE,
      labels: Object.fromEntries([...roles.values()].map((r) => [r.name, r.role])),
      points: form,
      sure,
    },
    by: 'found',
    misfit: null,
    columns: null,
    looks: null,
    chosen: { cut: best.cut, cost: best.cost },
    runnerUp: next && { cut: next.cut, cost: next.cost },
    items,
    between: found,
    lists,
    roles,
    evidence,
    keys,
    amountForm: form,
    loose: found.loose,
    listed: taken,
    aside: best.segmented.aside,
  };
}

/** The place of most keys, in its words; null where there are none. */
function mostly(sources: readonly KeySource[]): string | null {
  const counts = new Map<string, number>();
  for (const said of sources.map(sayKey)) counts.set(said, (counts.get(said) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** Where keys stand as confirmed goes first; what else answers comes after it. */
function inOrder(evidence: readonly KeyEvidence[], confirmed: Layout | null): KeyEvidence[] {
  if (!confirmed) return [...evidence];
  const source = keySourceOf(confirmed.key);
  if (!source || source.by === 'none') return [];
  const said = sayKey(source);
  const first = evidence.filter((e) => sayKey(e.source).toLowerCase() === said.toLowerCase());
  return [...first, ...evidence.filter((e) => !first.includes(e) && e.source.by !== 'mark')];
}

function confirmedRoles({ labels }: Layout): Map<string, ProposedRole> {
  return new Map(Object.entries(labels).map(([name, role]) => [foldField(name), { name, role, sure: 1 }]));
}

function cutOf({ question, choice, labels }: Layout, wraps: boolean): Cut {
  return {
    question: question === NONE ? null : question,
    choices:
      choice === NONE
        ? []
        : choice
            .split('|')
            .map((c) => c.trim())
            .filter((c) => c !== ''),
    fields: new Set(Object.keys(labels).map(foldField)),
    fieldsLead: false,
    wraps,
    byLevel: false,
  };
}

/** How sure a reading is: what it explains, how far the next one is behind, how many items have a key. */
function sureness(
  best: Tried,
  next: Tried | null,
  items: readonly RawItem[],
  keys: ReadonlyMap<RawItem, SettledKey>,
  loose: number,
): number {
  const explained = items.length / (items.length + loose * 0.5 + best.cost.total * 0.25);
  const margin = next ? Math.min(1, (next.cost.total - best.cost.total) / Math.max(1, items.length)) : 1;
  const keyed = items.filter((i) => keys.get(i)?.sure).length / items.length;
  return Math.round(100 * explained * (0.6 + 0.4 * margin) * (0.5 + 0.5 * keyed)) / 100;
}

function nothing(document: BlockDocument, lines: readonly Line[], lists: readonly AnswerList[]): Recognised {
  const listed = new Set(lists.flatMap((l) => l.entries.map((e) => e.line.at)));
  return {
    document,
    layout: { question: NONE, choice: NONE, key: NONE, labels: {}, points: null, sure: 0 },
    by: 'found',
    misfit: null,
    columns: null,
    looks: null,
    chosen: null,
    runnerUp: null,
    items: [],
    between: { placed: [], headings: [], loose: [] },
    lists,
    roles: new Map(),
    evidence: [],
    keys: new Map(),
    amountForm: null,
    loose: lines.filter((l) => !listed.has(l.at)),
    listed: lines.filter((l) => listed.has(l.at)),
    aside: [],
  };
}
