import { checkItem, checkWhole } from '../checks/index.ts';
import { commonest } from '../edit/keys.ts';
import { metTwice, type MetTwice } from '../exam/twice.ts';
import type { FindingCode } from '../model/codes.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Quiz } from '../model/holding.ts';
import { near, plainNumber } from '../model/number.ts';
import { nameOf } from '../model/plainText.ts';
import { KIND_NAMES } from '../report/kind.ts';
import { repairsOf } from '../repair/index.ts';
import type { DraftChange } from './changes.ts';
import type { Composed } from './compose.ts';
import { NO_FILTER, type BankAt, type ItemAt, type QuizDraft } from './draft.ts';
import type { Outlook } from './outlook.ts';
import { planGaps, planLacks, planPlaces, type PlanGap } from './plan.ts';
import { bankItems, type Shelves } from './pool.ts';

/** Something that is wrong with a quiz that is being made, or may be, and what puts it right. */
export interface Hazard {
  readonly finding: Finding;
  /** The section it is about; null: the quiz. */
  readonly section: string | null;
  /** The item it is about, by its id in the quiz. */
  readonly item: string | null;
  /** What puts it right; null where only a person can say what is right. */
  readonly changes: readonly DraftChange[] | null;
}

/** Findings of whole packages that say nothing of one quiz, or that are told in another way here. */
const NOT_HERE: ReadonlySet<FindingCode> = new Set([
  'draw-too-large',
  'draw-points-unequal',
  'duplicate-items',
  'near-duplicate-items',
  'family-drawn-twice',
  'item-unused',
  'bank-mixed-kinds',
]);
/** Of one sort so many are listed; more would hide the others. */
const MOST_OF_A_SORT = 20;
/** What is met together more rarely than this is told with the fairness of draws, and not here. */
const RARELY = 0.001;

export interface Situation extends Composed {
  readonly draft: QuizDraft;
  readonly shelves: Shelves;
  readonly outlook: Outlook;
  /** Whether the items themselves are at hand, or only what lists know of them: then they are not looked at one by one. */
  readonly whole: boolean;
}

/** Everything that is wrong with a quiz, the worst first. */
export function hazardsOf(situation: Situation): Hazard[] {
  const { holding, draft } = situation;
  const [quiz] = holding.quizzes;
  if (!quiz) return [];
  const all = [
    ...gone(situation),
    ...draws(situation, quiz),
    ...(situation.whole ? twice(situation, quiz) : later(situation)),
    ...settings(situation),
    ...(situation.whole ? ofItems(situation, quiz) : []),
    ...plan(situation),
    ...unasked(situation),
  ];
  const worth = { error: 0, warning: 1, note: 2 } as const;
  const bySort = new Map<string, number>();
  return all
    .filter(({ finding: { code } }) => {
      const n = (bySort.get(code) ?? 0) + 1;
      bySort.set(code, n);
      return n <= MOST_OF_A_SORT;
    })
    .sort((a, b) => worth[a.finding.severity] - worth[b.finding.severity])
    .map((h) => (draft.sections.some((s) => s.id === h.section) ? h : { ...h, section: null }));
}

const later = ({ holding }: Situation): Hazard[] => [
  whole(finding('looked-at-later', 'note', {}, { count: holding.items.length })),
];

/** A hazard of the quiz as a whole. */
const whole = (of: Finding, changes: Hazard['changes'] = null): Hazard => ({
  finding: of,
  section: null,
  item: null,
  changes,
});

function gone({ gone: items, draft }: Situation): Hazard[] {
  if (items.length === 0) return [];
  const missing = (at: ItemAt): boolean => items.some((g) => g.place === at.place && g.item === at.item);
  const keys = draft.sections.flatMap((s) => s.items.filter(missing).map((i) => i.key));
  const drops = draft.sections.flatMap((s): DraftChange[] => {
    const named = s.draw?.pool.named.filter(missing) ?? [];
    return named.length > 0 ? [{ do: 'without', section: s.id, items: named }] : [];
  });
  return [
    whole(finding('source-gone', 'error', {}, { count: items.length }), [{ do: 'remove', keys }, ...drops]),
  ];
}

function draws({ draft, holding }: Situation, quiz: Quiz): Hazard[] {
  const points = new Map(holding.items.map((i) => [i.id, i.points]));
  return draft.sections.flatMap((s, at): Hazard[] => {
    const pool = quiz.sections[at]?.draw?.pool ?? [];
    if (!s.draw) return [];
    const here = { section: s.id, item: null };
    const { pick, pointsEach } = s.draw;
    if (pool.length === 0)
      return [{ ...here, finding: finding('draw-empty', 'error', {}, { section: s.title }), changes: null }];
    const out: Hazard[] = [];
    if (pick > pool.length)
      out.push({
        ...here,
        finding: finding('draw-too-large', 'error', {}, { pick, of: pool.length, section: s.title }),
        changes: [{ do: 'draw', section: s.id, to: { pick: pool.length } }],
      });
    const worth = pool.map((id) => points.get(id) ?? 0).sort((a, b) => a - b);
    const distinct = worth.filter((p, n) => n === 0 || !near(p, worth[n - 1]!));
    if (distinct.length > 1) {
      const params = { points: distinct.map(plainNumber).join(', '), section: s.title };
      const to = commonest(
        worth.filter((p) => p > 0),
        1,
      );
      // Where points are said already, only items that give nothing are left unequal.
      const changes: DraftChange[] | null =
        pointsEach === null
          ? [{ do: 'draw', section: s.id, to: { pointsEach: to } }]
          : worthSomething(pool, points, pointsEach);
      out.push({ ...here, finding: finding('draw-points-unequal', 'warning', {}, params), changes });
    }
    return out;
  });
}

/** Items that give no points, made worth what the draw says. */
function worthSomething(
  pool: readonly string[],
  points: ReadonlyMap<string, number>,
  to: number,
): DraftChange[] | null {
  const none = pool.filter((id) => (points.get(id) ?? 0) <= 0);
  return none.length > 0 ? [{ do: 'edits', edits: none.map((node) => ({ op: 'points', node, to })) }] : null;
}

/** One of two that ask the same goes: out of a draw before it goes out of what everybody is set. */
function twice({ holding, draft, from }: Situation, quiz: Quiz): Hazard[] {
  const items = new Map(holding.items.map((i) => [i.id, i]));
  const drawn = (id: string): string | null =>
    draft.sections[quiz.sections.findIndex((s) => s.draw?.pool.includes(id))]?.id ?? null;
  const fixed = (id: string): string | null =>
    draft.sections[quiz.sections.findIndex((s) => s.items.some((r) => r.item === id))]?.id ?? null;
  const remedy = ([a, b]: MetTwice['items']): {
    section: string | null;
    item: string;
    changes: DraftChange[];
  } => {
    const leave = drawn(b) !== null && (a !== b || fixed(b) !== null) ? b : drawn(a) !== null ? a : b;
    const section = drawn(leave);
    const at = from.get(leave);
    if (section !== null && at)
      return { section, item: leave, changes: [{ do: 'without', section, items: [at] }] };
    return { section: fixed(leave), item: leave, changes: [{ do: 'remove', keys: [leave] }] };
  };
  return metTwice(quiz, holding.items)
    .filter((m) => m.chance >= RARELY)
    .map(({ items: pair, because, chance }) => {
      const [a, b] = pair.map((id) => nameOf(items.get(id)!));
      const params = { first: a!, other: b!, because: BECAUSE[because], percent: percentOf(chance) };
      const severity = because === 'near' || chance < 0.05 ? 'note' : 'warning';
      return { finding: finding('met-twice', severity, {}, params), ...remedy(pair) };
    });
}
const BECAUSE: Readonly<Record<MetTwice['because'], string>> = {
  same: 'the same question',
  near: 'nearly the same question',
  family: 'the same exercise with other numbers',
};
/** In words that are no truer than they look. */
const percentOf = (chance: number): string =>
  chance > 1 - 1e-9 ? '100' : chance < 0.01 ? 'less than 1' : String(Math.min(99, Math.round(chance * 100)));

/** Minutes by which the expected time may go beyond what there is. */
const SLACK = 1.1;

function settings({ draft, outlook }: Situation): Hazard[] {
  const { passMark, timeLimitMinutes } = draft.settings;
  const out: Hazard[] = [];
  const { least } = outlook.points;
  if (passMark !== null && outlook.items > 0 && passMark > least + 1e-9)
    out.push(
      whole(finding('pass-mark-above-total', 'error', {}, { mark: passMark, points: least }), [
        { do: 'settings', to: { passMark: least } },
      ]),
    );
  const needs = Math.ceil(outlook.minutes);
  if (timeLimitMinutes !== null && outlook.minutes > timeLimitMinutes * SLACK)
    out.push(
      whole(
        finding('time-short', 'warning', {}, { minutes: timeLimitMinutes, needs, count: outlook.items }),
        [{ do: 'settings', to: { timeLimitMinutes: Math.ceil(needs / 5) * 5 } }],
      ),
    );
  return out;
}

/** What the checks say of the items and the quiz, with the repairs they have everywhere. */
function ofItems({ holding, draft, from }: Situation, quiz: Quiz): Hazard[] {
  const paths = new Set(holding.files.map((f) => f.path));
  const byId = new Map(holding.items.map((i) => [i.id, i]));
  const found = [...holding.items.flatMap((i) => checkItem(i, paths)), ...checkWhole(holding)].filter(
    (f) => !NOT_HERE.has(f.code),
  );
  const repairs = new Map(repairsOf(holding, found).map((r) => [r.at, r.edits]));
  return found.map((of, at): Hazard => {
    const item = of.where.node !== null && byId.has(of.where.node) ? of.where.node : null;
    const section = item === null ? null : sectionOf(draft, quiz, item);
    const edits = repairs.get(at);
    const settled = edits?.flatMap((e) => (e.op === 'settings' ? [settingsOf(e.to)] : []));
    const changes: DraftChange[] | null =
      settled && settled.length > 0
        ? settled
        : edits
          ? [{ do: 'edits', edits: [...edits] }]
          : of.code === 'key-missing' && item !== null
            ? leftOut(draft, quiz, from, item)
            : null;
    return { finding: of, section, item, changes };
  });
}

/** Settings are the draft's own: they are changed there, and not over it. */
const settingsOf = (to: { readonly attempts?: number | 'unlimited' | null | undefined }): DraftChange => ({
  do: 'settings',
  to: to.attempts === undefined ? {} : { attempts: to.attempts },
});

const sectionOf = (draft: QuizDraft, quiz: Quiz, item: string): string | null =>
  draft.sections[
    quiz.sections.findIndex((s) => s.items.some((r) => r.item === item) || s.draw?.pool.includes(item))
  ]?.id ?? null;

/** An item that nobody can score goes out of the quiz, or out of its draw. */
function leftOut(
  draft: QuizDraft,
  quiz: Quiz,
  from: ReadonlyMap<string, ItemAt>,
  item: string,
): DraftChange[] {
  const at = from.get(item);
  return quiz.sections.flatMap((s, n): DraftChange[] => {
    if (s.items.some((r) => r.item === item)) return [{ do: 'remove', keys: [item] }];
    const section = draft.sections[n];
    return section && at && s.draw?.pool.includes(item)
      ? [{ do: 'without', section: section.id, items: [at] }]
      : [];
  });
}

const categoryName = (category: string): string => category || 'no category';

function plan({ draft, shelves, outlook }: Situation): Hazard[] {
  const points = (of: Outlook['kinds']): Map<string, number> =>
    new Map([...of].map(([n, s]) => [n, s.points]));
  const lacks = planLacks(draft.plan, planPlaces(shelves, draft.plan.from)).map(({ cell, has }) =>
    whole(
      finding(
        'plan-lacks',
        'warning',
        {},
        {
          wanted: cell.count,
          has,
          category: categoryName(cell.category),
          kind: KIND_NAMES[cell.kind] ?? cell.kind,
        },
      ),
      [
        {
          do: 'plan',
          to: { ...draft.plan, cells: draft.plan.cells.map((c) => (c === cell ? { ...c, count: has } : c)) },
        },
      ],
    ),
  );
  if (outlook.items === 0) return lacks;
  const gaps = planGaps(draft.plan, { category: points(outlook.categories), kind: points(outlook.kinds) });
  return [...lacks, ...(gaps.length > 0 ? [whole(missed(gaps))] : [])];
}

/** So many gaps are told; the rest are counted. */
const MOST_GAPS = 4;

function missed(gaps: readonly PlanGap[]): Finding {
  const said = gaps
    .slice(0, MOST_GAPS)
    .map(({ by, name, planned, points }) => {
      const called = by === 'kind' ? (KIND_NAMES[name] ?? name) : categoryName(name);
      return `“${called}” ${rounded(points)} of ${rounded(planned)}`;
    })
    .join(', ');
  const rest = gaps.length > MOST_GAPS ? `, and ${gaps.length - MOST_GAPS} more` : '';
  return finding('plan-missed', 'note', {}, { gaps: `${said}${rest}` });
}
const rounded = (n: number): string => plainNumber(Math.round(n * 10) / 10);

/** Categories of the banks it draws from, or is planned from, that nobody is asked about. */
function unasked({ draft, shelves, outlook, from }: Situation): Hazard[] {
  if (outlook.items === 0) return [];
  const banks = new Map<string, BankAt>();
  const note = ({ place, bank }: BankAt): void =>
    void banks.set(`${place}\u0001${bank ?? ''}`, { place, bank });
  for (const s of draft.sections) s.draw?.pool.from.forEach(note);
  draft.plan.from.forEach(note);
  const used = new Set([...from.values()].map((f) => `${f.place}\u0001${f.item}`));
  const there = new Map<string, { asked: boolean; bank: BankAt }>();
  for (const bank of banks.values())
    for (const { item, category } of bankItems(shelves, bank)) {
      if (category === null) continue;
      const had = there.get(category) ?? { asked: false, bank };
      had.asked ||= used.has(`${bank.place}\u0001${item}`);
      there.set(category, had);
    }
  const left = [...there].filter(([category, { asked }]) => !asked && !outlook.categories.has(category));
  if (left.length === 0) return [];
  const changes = left.map(([category, { bank }]): DraftChange => ({
    do: 'section-add',
    title: category,
    draw: {
      pick: 1,
      pointsEach: null,
      pool: { from: [{ ...bank, filter: { ...NO_FILTER, categories: [category] } }], named: [], without: [] },
    },
  }));
  const names = left.map(([category]) => `“${category}”`).join(', ');
  return [whole(finding('category-unasked', 'note', {}, { categories: names, count: left.length }), changes)];
}
