import { plainNumber } from '../model/number.ts';
import { UNNAMED } from '../model/plainText.ts';
import type { Comparison, ContainerReport, Facet, FamilyReport, PairReport } from '../compare/types.ts';
import { landingId } from '../landing/plan.ts';
import type { CourseOutline } from '../landing/types.ts';
import type { Trouble } from '../landing/trouble.ts';
import { inWords, sayDifference } from '../report/differences.ts';
import { sayTrouble } from '../report/troubles.ts';
import type { PouchRow } from './pouch.ts';

/**
 * What an arrival states that can differ: the comparison with both sides' rows, and, in a course, the
 * landing.
 */
export interface ArrivalFacts {
  readonly comparison: Comparison;
  readonly left: readonly PouchRow[];
  readonly right: readonly PouchRow[];
  /** What things were to be called, by landing. */
  readonly names: Readonly<Record<string, string>>;
  readonly landing: { readonly troubles: readonly Trouble[]; readonly outline: CourseOutline } | null;
}

/** What a difference is about, as data. */
export type Subject =
  | { readonly about: 'item'; readonly state: 'altered'; readonly pair: PairReport }
  | { readonly about: 'item'; readonly state: 'missing' | 'extra'; readonly item: string }
  /** Replicas with other numbers: one fact. */
  | { readonly about: 'family'; readonly family: FamilyReport }
  | { readonly about: 'container'; readonly container: ContainerReport; readonly facet: Facet | null }
  | { readonly about: 'file'; readonly state: 'missing' | 'altered'; readonly path: string }
  | { readonly about: 'landing'; readonly trouble: Trouble };

/** Names a difference for as long as its transfer is kept: decisions refer to it. Never taken apart again. */
export type DifferenceId = string & { readonly differenceId?: never };

/** One thing that is not as planned. */
export interface OpenDifference {
  readonly id: DifferenceId;
  readonly subject: Subject;
}

export function differenceId(subject: Subject): DifferenceId {
  switch (subject.about) {
    case 'item':
      return subject.state === 'altered' ? `item ${subject.pair.source}` : `${subject.state} ${subject.item}`;
    case 'container': {
      const { kind, source, arrived } = subject.container;
      return ['container', kind, source ?? arrived ?? '', ...(subject.facet ? [subject.facet] : [])].join(
        ' ',
      );
    }
    case 'family':
      return `family ${subject.family.id}`;
    case 'file':
      return `file ${subject.path}`;
    case 'landing': {
      const { trouble, kind, node, thing } = subject.trouble;
      return `landing ${trouble} ${kind} ${node ?? thing}`;
    }
  }
}

/**
 * Of which sort a difference is: what has the same is told in one line. For items that are altered, all facets
 * that differ.
 */
export function sortOf(subject: Subject): readonly string[] {
  switch (subject.about) {
    case 'item':
      return subject.state === 'altered'
        ? [...new Set(subject.pair.differences.map((d) => d.facet))]
        : [subject.state];
    case 'family':
      return [subject.family.state];
    case 'container':
      return [subject.facet ?? subject.container.state];
    case 'file':
      return [subject.state];
    case 'landing':
      return [subject.trouble.trouble];
  }
}

/** Everything of an arrival that differs: items, containers, files, and the landing. */
export function differencesOf({ comparison, landing }: ArrivalFacts): OpenDifference[] {
  const reseeded = comparison.families.filter((f) => f.state === 'reseeded');
  const together = new Set(reseeded.flatMap((f) => f.items));
  const subjects: Subject[] = [
    ...comparison.missing.map((m): Subject => ({ about: 'item', state: 'missing', item: m.id })),
    ...comparison.pairs
      .filter((p) => p.state === 'altered' && !together.has(p.source))
      .map((pair): Subject => ({ about: 'item', state: 'altered', pair })),
    ...reseeded.map((family): Subject => ({ about: 'family', family })),
    ...comparison.extra.map((x): Subject => ({ about: 'item', state: 'extra', item: x.id })),
    ...comparison.containers.flatMap((c) => containerSubjects(c, landing)),
    ...comparison.missingFiles.map((path): Subject => ({ about: 'file', state: 'missing', path })),
    ...comparison.alteredFiles.map((path): Subject => ({ about: 'file', state: 'altered', path })),
    ...(landing?.troubles ?? []).map((trouble): Subject => ({ about: 'landing', trouble })),
  ];
  return subjects.map((subject) => ({ id: differenceId(subject), subject }));
}

function containerSubjects(container: ContainerReport, landing: ArrivalFacts['landing']): Subject[] {
  const { state, arrived, differences } = container;
  // What was not planned and stands in the course is told by the landing.
  const told = state === 'extra' && landing?.troubles.some((t) => t.thing === arrived);
  if (state === 'intact' || told) return [];
  if (differences.length === 0) return [{ about: 'container', container, facet: null }];
  // Names in a course are judged at the landing.
  return differences
    .filter((d) => d.facet !== 'title' || landing === null)
    .map(({ facet }) => ({ about: 'container', container, facet }));
}

/** A difference in words: what it is about, what was planned, what was found. */
export interface SpokenDifference {
  readonly what: string;
  readonly planned: string;
  readonly found: string;
}

const FACET_WORDS: Partial<Record<Facet, string>> = {
  'time-limit': 'time limit',
  'pass-mark': 'pass mark',
  membership: 'which questions',
  'case-sensitivity': 'capitals',
  'choice-order': 'order of choices',
};
const wordOf = (facet: Facet): string => FACET_WORDS[facet] ?? facet;
const TROUBLE_WORDS: Readonly<Record<Trouble['trouble'], string>> = {
  section: 'section',
  name: 'name',
  visibility: 'visibility',
  copy: 'number of copies',
  extra: 'not in the plan',
  review: 'review',
  'not-there': 'presence',
  attachment: 'attachment',
  locked: 'lock',
};

const names = new WeakMap<readonly PouchRow[], ReadonlyMap<string, string>>();
/** What rows are called, by their ids; the same rows are asked for each of many differences. */
function namesIn(rows: readonly PouchRow[]): ReadonlyMap<string, string> {
  const known = names.get(rows) ?? new Map(rows.map((r) => [r.id, r.name]));
  names.set(rows, known);
  return known;
}

/** Words for a difference of this arrival. */
export function speakDifference({ subject }: OpenDifference, arrival: ArrivalFacts): SpokenDifference {
  const named = (rows: readonly PouchRow[], id: string): string => namesIn(rows).get(id) ?? UNNAMED.item;
  switch (subject.about) {
    case 'item': {
      if (subject.state === 'altered') {
        const { source, differences } = inWords(subject.pair);
        return {
          what: named(arrival.left, source),
          planned: differences.map((d) => `${wordOf(d.facet)}: ${d.from || 'nothing'}`).join('; '),
          found: [
            ...differences.map((d) => `${wordOf(d.facet)}: ${d.to || 'nothing'}`),
            ...staleWords(subject.pair.arrived, arrival.comparison),
          ].join('; '),
        };
      }
      return subject.state === 'missing'
        ? { what: named(arrival.left, subject.item), planned: 'there', found: 'missing' }
        : { what: named(arrival.right, subject.item), planned: 'not there', found: 'there' };
    }
    case 'family':
      return {
        what: `${subject.family.title} (${subject.family.items.length} replicas)`,
        planned: 'the same exercise with its numbers',
        found: 'the same exercise with other numbers; keys follow them, points are the same',
      };
    case 'container':
      return speakContainer(subject, arrival);
    case 'file':
      return subject.state === 'missing'
        ? { what: subject.path, planned: 'there', found: 'missing' }
        : { what: subject.path, planned: 'as in the source', found: 'other content' };
    case 'landing': {
      const { name, trouble } = subject.trouble;
      return { what: `${name}, ${TROUBLE_WORDS[trouble]}`, ...sayTrouble(subject.trouble) };
    }
  }
}

/** That a key did not follow the numbers of its replica. */
const staleWords = (arrived: string, { families }: Comparison): string[] =>
  families
    .flatMap((f) => f.stale)
    .filter((s) => s.item === arrived)
    .map(({ key, expected }) =>
      expected === null
        ? `the key ${key} stayed although the numbers changed`
        : `the key ${key} does not follow the numbers, which give ${plainNumber(Number(expected.toPrecision(6)))}`,
    );

function speakContainer(
  { container, facet }: Extract<Subject, { about: 'container' }>,
  arrival: ArrivalFacts,
): SpokenDifference {
  const { kind, state } = container;
  const called = containerName(container, arrival);
  const differs = container.differences.find((d) => d.facet === facet);
  if (!differs)
    return {
      what: `${called}, ${kind}`,
      planned: state === 'extra' ? 'not there' : 'there',
      found: state,
    };
  const word = wordOf(differs.facet);
  const { from, to } = sayDifference(differs);
  return { what: `${called}${kind === 'rubric' ? ' (rubric)' : ''}, ${word}`, planned: from, found: to };
}

/** What people know a container by: the name it was to have, or has in the course. */
export function containerName(
  { kind, source, arrived }: Pick<ContainerReport, 'kind' | 'source' | 'arrived'>,
  { names, landing }: Pick<ArrivalFacts, 'names' | 'landing'>,
): string {
  const id = source ?? arrived ?? '';
  const key = landingId({ kind, node: id });
  return (
    (Object.hasOwn(names, key) ? names[key] : undefined) ??
    (landing?.outline.things.find((t) => t.id === id)?.title || UNNAMED[kind])
  );
}

/** What lists show of an arrival. */
export interface Tally {
  readonly verdict: Comparison['verdict'];
  readonly counts: Comparison['counts'];
  /** Differences nobody has decided on. */
  readonly open: number;
  /** Differences that somebody has taken as they are. */
  readonly accepted: number;
}

/** @param decided ids of the differences that somebody has taken as they are */
export function tallyOf(arrival: ArrivalFacts, decided: Iterable<DifferenceId>): Tally {
  const settled = new Set(decided);
  const { verdict, counts } = arrival.comparison;
  const all = differencesOf(arrival);
  const open = all.filter((d) => !settled.has(d.id)).length;
  return { verdict, counts, open, accepted: all.length - open };
}
