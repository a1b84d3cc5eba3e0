import type { Decision } from '../../shared/courses.ts';
import type { Arrival, Tally } from '../../shared/types.ts';

/** One thing that is not as planned, by a name that decisions refer to. */
export interface OpenDifference {
  readonly key: string;
  readonly what: string;
  readonly planned: string;
  readonly found: string;
}

export const itemKey = (source: string): string => `item ${source}`;
export const missingKey = (id: string): string => `missing ${id}`;
export const extraKey = (id: string): string => `extra ${id}`;

const FACET_WORDS: Readonly<Record<string, string>> = {
  'time-limit': 'time limit',
  'pass-mark': 'pass mark',
  membership: 'which questions',
};
const TROUBLE_WORDS = {
  section: 'section',
  name: 'name',
  visibility: 'visibility',
  copy: 'number of copies',
  extra: 'not in the plan',
  review: 'review',
  'not-there': 'presence',
  attachment: 'attachment',
  locked: 'lock',
} as const;

/** Everything of an arrival that differs: items, containers, files, and the landing. */
export function differencesOf(arrival: Arrival): OpenDifference[] {
  const { comparison: c, landing, left, right } = arrival;
  const nameOf = (rows: Arrival['left'], id: string): string => rows.find((r) => r.id === id)?.name ?? id;
  return [
    ...c.missing.map((m) => ({
      key: missingKey(m.id),
      what: nameOf(left, m.id),
      planned: 'there',
      found: 'missing',
    })),
    ...c.pairs
      .filter((p) => p.state === 'altered')
      .map((p) => ({
        key: itemKey(p.source),
        what: nameOf(left, p.source),
        planned: p.differences.map((d) => `${d.facet}: ${d.from}`).join('; '),
        found: p.differences.map((d) => `${d.facet}: ${d.to}`).join('; '),
      })),
    ...c.extra.map((x) => ({
      key: extraKey(x.id),
      what: nameOf(right, x.id),
      planned: 'not there',
      found: 'there',
    })),
    ...c.containers.flatMap((x) => {
      const name = x.source ?? x.arrived ?? '';
      const called =
        landing?.names[`${x.kind} ${name}`] ??
        landing?.outline.things.find((t) => t.id === name)?.title ??
        name;
      // What was not planned and stands in the course is told by the landing.
      if (
        x.state === 'intact' ||
        (x.state === 'extra' && landing?.troubles.some((t) => t.thing === x.arrived))
      )
        return [];
      if (x.differences.length === 0)
        return [
          {
            key: `container ${x.kind} ${name}`,
            what: `${called}, ${x.kind}`,
            planned: x.state === 'extra' ? 'not there' : 'there',
            found: x.state,
          },
        ];
      // Names in a course are judged at the landing.
      return x.differences
        .filter((d) => d.facet !== 'title' || landing === null)
        .map((d) => ({
          key: `container ${x.kind} ${name} ${d.facet}`,
          what: `${called}${x.kind === 'rubric' ? ' (rubric)' : ''}, ${FACET_WORDS[d.facet] ?? d.facet}`,
          planned: d.from,
          found: d.to,
        }));
    }),
    ...c.missingFiles.map((f) => ({ key: `file ${f}`, what: f, planned: 'there', found: 'missing' })),
    ...(landing?.troubles ?? []).map((t) => ({
      key: `landing ${t.trouble} ${t.kind} ${t.node ?? t.thing}`,
      what: `${t.name}, ${TROUBLE_WORDS[t.trouble]}`,
      planned: t.planned,
      found: t.found,
    })),
  ];
}

export const openDifferences = (arrival: Arrival, decisions: readonly Decision[]): OpenDifference[] => {
  const settled = new Set(decisions.map((d) => d.key));
  return differencesOf(arrival).filter((d) => !settled.has(d.key));
};

export const tallyOf = (arrival: Arrival, decisions: readonly Decision[]): Tally => ({
  verdict: arrival.comparison.verdict,
  counts: arrival.comparison.counts,
  open: openDifferences(arrival, decisions).length,
});
