import { zipSync } from 'fflate';
import { compareHoldings, fileReader, readHolding, writeHolding, type Comparison } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { readAll, unexplained } from '../support/losses.ts';
import type { ItemChange } from './changes/change.ts';
import { QUIZ_CHANGES } from './changes/placed.ts';
import { SCORED } from './changes/scored.ts';
import { SHOWN } from './changes/shown.ts';
import { TOLD } from './changes/told.ts';
import { Maker } from './make.ts';
import { Chance } from './random.ts';
import { scoreOf, shownNotes, type Ask, type CourseSpec, type Given, type ItemSpec } from './spec.ts';
import type { Names, Style, Written } from './style.ts';
import { write12 } from './write12.ts';
import { write2, type Version2 } from './write2.ts';

/** One thing looked at: what was done, and what was said that should not have been, or not said that should. */
export interface Outcome {
  readonly name: string;
  readonly miss: string | null;
}

type Format = '1.2' | Version2;
const EVERYWHERE: readonly Ask['kind'][] = [
  'choice',
  'choice',
  'choice',
  'order',
  'match',
  'text',
  'part',
  'number',
  'blanks',
  'spots',
  'essay',
];
const ITEMS = 6;
const ITEM_CHANGES: readonly ItemChange[] = [...SHOWN, ...SCORED, ...TOLD];

const bytes = (written: Written): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(written.files).map(([path, c]) => [
        path,
        typeof c === 'string' ? new TextEncoder().encode(c) : c,
      ]),
    ),
    { level: 0 },
  );

const write = (course: CourseSpec, style: Style, format: Format): Written =>
  format === '1.2' ? write12(course, style) : write2(course, style, format);

const FORMATS: readonly Format[] = ['1.2', '2.1', '2.2', '3.0'];

/**
 * Makes a course, changes some of it, writes both down in formats and styles of their own, has them read and
 * compared, and says for each item and for the quiz whether exactly what was changed was found.
 */
export async function trial(
  seed: number,
): Promise<{ outcomes: Outcome[]; written: readonly [Uint8Array, Uint8Array] }> {
  const chance = new Chance(seed);
  const make = new Maker(chance);
  const from = chance.pick(FORMATS);
  const to = chance.maybe(0.4) ? from : chance.pick(FORMATS);
  const old = from === '1.2' || to === '1.2';
  const plain = from !== '1.2' || to !== '1.2';
  const course = plainly(make.course(ITEMS, old ? EVERYWHERE : [...EVERYWHERE, 'associate', 'gaps']), plain);
  const changes = new Map<string, ItemChange>();
  const twinned = twinsIn(course);
  const items = course.items.map((item) => {
    if (chance.maybe(0.4)) return item;
    for (const change of chance.shuffled(ITEM_CHANGES)) {
      if (twinned.has(item.id) && change.facets.some((f) => TELLS_TWINS.has(f))) continue;
      if (change.name === 'points' && drawn(course, item.id)) continue;
      const changed = change.apply(item, make);
      if (!changed || JSON.stringify(changed) === JSON.stringify(item)) continue;
      changes.set(item.id, change);
      return changed;
    }
    return item;
  });
  // Now and then one item does not arrive at all; nothing else of the quiz is changed then.
  const gone = chance.maybe(0.15) ? chance.pick(course.items).id : null;
  if (gone !== null) changes.set(gone, GONE);
  const quizChange = gone === null && chance.maybe(0.6) ? chance.pick(QUIZ_CHANGES) : null;
  const changedItems: CourseSpec = gone === null ? { ...course, items } : without({ ...course, items }, gone);
  const moved = quizChange?.apply(changedItems, make) ?? null;
  const there = moved ?? changedItems;
  const [left, right] = [write(course, styleFrom(chance), from), write(there, styleFrom(chance), to)];
  const written = [bytes(left), bytes(right)] as const;
  const [a, b] = await Promise.all([
    readHolding('left.zip', written[0], nodePlatform),
    readHolding('right.zip', written[1], nodePlatform),
  ]);
  const comparison = compareHoldings(a, b);
  const outcomes: Outcome[] = course.items.map((item) => {
    const change = changes.get(item.id) ?? null;
    if (change === GONE)
      return {
        name: `${from === to ? '' : 'across '}${GONE.name}`,
        miss: comparison.missing.some((m) => m.id === left.names.get(item.id)!.item)
          ? null
          : 'not said to be missing',
      };
    return {
      name: `${from === to ? '' : 'across '}${change?.name ?? 'nothing'}`,
      miss: itemMiss(
        item,
        there.items.find((i) => i.id === item.id)!,
        change,
        comparison,
        left.names.get(item.id)!,
        right.names.get(item.id)!,
      ),
    };
  });
  const pointsMove = [...changes.values()].some((c) => c.name === 'points');
  outcomes.push({
    name: `quiz: ${gone !== null ? GONE.name : moved ? quizChange!.name : 'nothing'}`,
    miss: gone === null ? quizMiss(comparison, moved ? quizChange : null, pointsMove) : goneMiss(comparison),
  });
  return { outcomes, written };
}

/** What twins are told apart by: changed as well, nobody could say which of them arrived. */
const TELLS_TWINS: ReadonlySet<string> = new Set(['title', 'wording']);

/** Items that ask the same as another. */
function twinsIn({ items }: CourseSpec): Set<string> {
  const byStem = new Map<string, string[]>();
  for (const item of items) {
    const stem = JSON.stringify(item.stem);
    byStem.set(stem, [...(byStem.get(stem) ?? []), item.id]);
  }
  return new Set([...byStem.values()].filter((ids) => ids.length > 1).flat());
}

/** An item that does not arrive. */
const GONE: ItemChange = { name: 'an item gone', facets: [], apply: () => null };

/** The course without an item; a section that held nothing else goes with it. */
function without(course: CourseSpec, id: string): CourseSpec {
  const sections = course.quiz.sections
    .map((s) => {
      const items = s.items.filter((i) => i !== id);
      return { ...s, items, pick: s.pick === null ? null : Math.min(s.pick, items.length) };
    })
    .filter((s) => s.items.length > 0);
  return { items: course.items.filter((i) => i.id !== id), quiz: { ...course.quiz, sections } };
}

/** Of a quiz that has lost an item: that it has, and nothing that is not so because of it. */
function goneMiss(comparison: Comparison): string | null {
  if (comparison.verdict !== 'incomplete') return `the verdict is ${comparison.verdict}`;
  if (comparison.extra.length > 0) return 'something is said to be extra';
  const [quiz] = comparison.containers.filter((c) => c.kind === 'quiz');
  return facetMiss(
    (quiz?.differences ?? []).map((d) => d.facet),
    ['membership'],
    ['points', 'draw', 'sections', 'shuffle', 'instructions'],
  );
}

const styleFrom = (chance: Chance): Style => ({
  chance,
  decomposed: chance.maybe(0.3),
  renamed: chance.maybe(0.4),
  hostile: chance.maybe(0.1),
  spread: chance.maybe(),
});

/** A course at random, written in a format and a style at random. */
export function courseFor(chance: Chance, make: Maker): { format: Format; given: Uint8Array } {
  const format = chance.pick(FORMATS);
  const old = format === '1.2';
  const asks = old ? EVERYWHERE : [...EVERYWHERE, 'associate' as const, 'gaps' as const];
  return { format, given: bytes(write(plainly(make.course(ITEMS, asks), !old), styleFrom(chance), format)) };
}

const TARGETS = ['qti1.2', 'qti2.1', 'qti2.2', 'qti3.0', 'cc1.1', 'cc1.2', 'cc1.3'] as const;

/** Makes a course, has it written in another format, and says what came back altered without being forecast. */
export async function conversion(
  seed: number,
): Promise<{ outcomes: Outcome[]; written: readonly [Uint8Array, Uint8Array] }> {
  const chance = new Chance(seed);
  const make = new Maker(chance);
  const from = chance.pick(FORMATS);
  const to = chance.pick(TARGETS);
  const course = plainly(
    make.course(ITEMS, from === '1.2' ? EVERYWHERE : [...EVERYWHERE, 'associate', 'gaps']),
    from !== '1.2',
  );
  const given = bytes(write(course, styleFrom(chance), from));
  const before = await readHolding('given.zip', given, nodePlatform);
  const read = await fileReader('given.zip', given, nodePlatform);
  const { packages, findings } = writeHolding(before, to, read, nodePlatform);
  const after = await readAll(packages);
  const misses = unexplained(before, after, findings);
  return {
    outcomes: course.items.map((item, at) => ({
      name: `converted ${from} to ${to}`,
      miss: misses[at] ? `${misses[at]} (${item.ask.kind})` : null,
    })),
    written: [given, packages[0]!],
  };
}

const drawn = (course: CourseSpec, id: string): boolean =>
  course.quiz.sections.some((s) => s.pick !== null && s.items.includes(id));

/** Hints and solutions are QTI 1.2's alone. */
const plainly = (course: CourseSpec, plain: boolean): CourseSpec =>
  plain
    ? {
        ...course,
        items: course.items.map((i) => ({
          ...i,
          notes: i.notes.map((n) => ({ ...n, kind: 'plain' as const })),
        })),
      }
    : course;

function quizMiss(
  comparison: Comparison,
  change: (typeof QUIZ_CHANGES)[number] | null,
  pointsMove: boolean,
): string | null {
  const [quiz] = comparison.containers.filter((c) => c.kind === 'quiz');
  if (!quiz || quiz.state === 'missing' || quiz.state === 'extra') return 'the quiz was not paired';
  return facetMiss(
    quiz.differences.map((d) => d.facet),
    change?.facets ?? [],
    [...(change?.also ?? []), ...(pointsMove ? ['points'] : [])],
  );
}

function facetMiss(
  said: readonly string[],
  wanted: readonly string[],
  also: readonly string[],
): string | null {
  if (wanted.length > 0 && !said.some((f) => wanted.includes(f)))
    return `not said: ${wanted.join(' or ')}; said: ${said.join(', ') || 'nothing'}`;
  const more = said.filter((f) => !wanted.includes(f) && !also.includes(f));
  return more.length > 0 ? `said too: ${more.join(', ')}` : null;
}

function itemMiss(
  before: ItemSpec,
  after: ItemSpec,
  change: ItemChange | null,
  comparison: Comparison,
  left: Names,
  right: Names,
): string | null {
  const pair = comparison.pairs.find((p) => p.source === left.item);
  if (!pair) return 'not paired';
  if (pair.arrived !== right.item) return 'paired with another';
  const wrong = facetMiss(
    pair.differences.map((d) => d.facet),
    change?.facets ?? [],
    change?.also ?? [],
  );
  if (wrong) return wrong;
  for (const { facet, example } of pair.differences) {
    if (!example) {
      if (change?.example && change.facets.includes(facet)) return `${facet}: no example`;
      continue;
    }
    const given = inSpec(example.response, left, before);
    const [was, is] = [scoreOf(before, given), scoreOf(after, given)];
    if (Math.abs(was - example.from) > 1e-6 || Math.abs(is - example.to) > 1e-6)
      return `${facet}: ${JSON.stringify(given)} gives ${was} and ${is}, said ${example.from} and ${example.to}`;
    const shown = shownNotes(before, given).sort().join('\n') !== shownNotes(after, given).sort().join('\n');
    if (facet === 'feedback' && !shown) return `feedback: ${JSON.stringify(given)} shows the same`;
    if (facet !== 'feedback' && Math.abs(was - is) < 1e-9)
      return `${facet}: ${JSON.stringify(given)} scores the same`;
  }
  return null;
}

/** An answer in the specification's own names. */
function inSpec(response: Given, names: Names, item: ItemSpec): Given {
  const { ask } = item;
  const rows = names.responses.length > 1 && ask.kind === 'match' ? ask.left.map((l) => l.id) : null;
  const told = (v: string | number | boolean): string | number | boolean =>
    typeof v === 'string'
      ? v
          .split(' ')
          .map((part) => {
            const row = rows?.[names.responses.indexOf(part)];
            return row ?? names.choices.get(part) ?? part;
          })
          .join(' ')
      : v;
  const known = Object.entries(response).map(
    ([id, values]) => [names.responses.indexOf(id), values.map(told)] as const,
  );
  if (!rows) return Object.fromEntries(known.map(([at, values]) => [String(Math.max(0, at)), values]));
  return {
    '0': known.flatMap(([at, values]) => values.map((v) => (at < 0 ? v : `${rows[at]!} ${String(v)}`))),
  };
}
