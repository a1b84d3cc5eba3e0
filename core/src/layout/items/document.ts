import type { Finding } from '../../model/finding.ts';
import type { Item, Stimulus } from '../../model/holding.ts';
import { amountInHeading } from '../amounts.ts';
import type { Passage, Placed } from '../heads.ts';
import type { Heading } from '../headings.ts';
import type { Line } from '../lines.ts';
import type { RawItem } from '../raw.ts';
import type { Recognised } from '../recognise.ts';
import { EACH, truthOf, truthWords } from '../words.ts';
import { blocksOf, piecesOf } from './content.ts';
import { buildItem } from './one.ts';

/** A document's items in their banks, and what of it is in none. */
export interface BuiltBank {
  readonly title: string;
  readonly items: readonly Item[];
}
export interface Unread {
  /** Blocks, counted from 1. */
  readonly from: number;
  readonly to: number;
  readonly text: string;
}
export interface Built {
  readonly title: string;
  readonly banks: readonly BuiltBank[];
  readonly findings: readonly Finding[];
  readonly unread: readonly Unread[];
  /** What each of the document's items became, by id. */
  readonly ids: ReadonlyMap<RawItem, string>;
}

/** @param idFor an id for the item of a number in a bank, counted from 0; `began` where somebody has said that it begins */
export function buildDocument(
  recognised: Recognised,
  idFor: (bank: number, number: number, began: number | null) => string,
): Built {
  const { placed } = recognised.between;
  const findings: Finding[] = [];
  const { title, groups } = groupsOf(placed, recognised.document.title);
  const truths = truthsOf(recognised);
  const passages = new Map<Passage, Stimulus>();
  const ids = new Map<RawItem, string>();
  const banks = groups.map(({ title: name, items }, at): BuiltBank => ({
    title: name,
    items: items.map((one, n) => {
      const { label, count, byHand, start } = one.item;
      // Numbered as the document has it; what somebody began or joined moves no other one.
      const number = label?.ordinal || (count > 0 ? count - (items[0]!.item.count - 1) : n + 1);
      const id = idFor(at, number, byHand ? start.block : null);
      ids.set(one.item, id);
      const built = buildItem(one, {
        recognised,
        id,
        path: recognised.document.path,
        stimuli: one.passage ? [stimulusOf(one.passage, passages, recognised)] : [],
        truths: truths.get(one) ?? null,
        each: eachIn(one.path),
      });
      findings.push(...built.findings);
      return built.item;
    }),
  }));
  return { title, banks, findings, unread: unreadOf(recognised.loose), ids };
}

/** Items by the chapter or part they stand under; what all stand under is the document's title. */
function groupsOf(
  placed: readonly Placed[],
  given: string,
): { title: string; groups: { title: string; items: Placed[] }[] } {
  const places = placed.map((p) => p.path.filter((h) => !h.namesKind));
  const common = commonStart(places);
  const byPath = new Map<string, { title: string; items: Placed[] }>();
  for (const [at, one] of placed.entries()) {
    const rest = places[at]!.slice(common.length);
    const name = rest.map((h) => h.text).join(' / ');
    const group = byPath.get(name) ?? { title: name, items: [] };
    group.items.push(one);
    byPath.set(name, group);
  }
  const title = common.map((h) => h.text).join(' / ') || given;
  const groups = [...byPath.values()].map((g) => ({ ...g, title: g.title || title }));
  return { title, groups };
}

function commonStart(paths: readonly (readonly Heading[])[]): Heading[] {
  const [first = []] = paths;
  let length = first.length;
  for (const path of paths) {
    let same = 0;
    while (same < length && path[same] === first[same]) same += 1;
    length = same;
  }
  return first.slice(0, length);
}

/** "2 points each" of the nearest heading that says so. */
function eachIn(path: readonly Heading[]): number | null {
  for (const { text } of path.toReversed()) {
    const said = EACH.test(text) ? amountInHeading(text) : null;
    if (said) return said.value;
  }
  return null;
}

const TRUTH_HEADING =
  /true|false|verdadero|falso|richtig|falsch|wahr|vrai|faux|верно|неверно|صح|خطأ|正誤|判断/iu;

/** Which questions without choices are of true and false: by their heading, or by what those around them answer. */
function truthsOf({ between, keys }: Recognised): Map<Placed, readonly [string, string]> {
  const out = new Map<Placed, readonly [string, string]>();
  const open = between.placed.filter((p) => p.item.choices.length === 0);
  const answered = open.filter((p) => keys.has(p.item));
  const values = answered.map((p) => keys.get(p.item)!.value);
  const truthful = values.filter((v) => truthOf(v.split(/[.,;:(–—]/u)[0]!.trim()) !== null);
  const words = truthWords(truthful.map((v) => v.split(/[.,;:(–—]/u)[0]!.trim()));
  for (const one of open) {
    const key = keys
      .get(one.item)
      ?.value.split(/[.,;:(–—]/u)[0]!
      .trim();
    const headed = one.path.some((h) => h.namesKind && TRUTH_HEADING.test(h.text));
    if (key === undefined ? headed : truthOf(key) !== null) out.set(one, words);
  }
  return out;
}

function stimulusOf(passage: Passage, made: Map<Passage, Stimulus>, { document }: Recognised): Stimulus {
  const had = made.get(passage);
  if (had) return had;
  const parts = passage.lines.map((line) => ({
    line,
    runs: line.runs,
    joins: document.wraps && !line.apart && !line.table,
  }));
  const stimulus: Stimulus = {
    id: `passage-${made.size + 1}`,
    title: '',
    path: `passages/${document.path}-${made.size + 1}.xml`,
    content: blocksOf(piecesOf(parts)),
  };
  made.set(passage, stimulus);
  return stimulus;
}

/** Lines of nothing as stretches of blocks. */
function unreadOf(loose: readonly Line[]): Unread[] {
  const out: { from: number; to: number; text: string }[] = [];
  for (const line of loose.toSorted((a, b) => a.block - b.block)) {
    const last = out.at(-1);
    const text = line.table ? tableText(line.table) : line.text;
    if (last && line.block <= last.to + 1) {
      last.to = Math.max(last.to, line.block);
      last.text += `\n${text}`;
    } else out.push({ from: line.block, to: line.block, text });
  }
  return out;
}

const tableText = (table: NonNullable<Line['table']>): string =>
  table.rows
    .map((r) =>
      r
        .map((c) =>
          c
            .flatMap((p) => p.runs)
            .map((x) => (x.kind === 'text' ? x.text : ''))
            .join(' '),
        )
        .join(' | '),
    )
    .join('\n');
