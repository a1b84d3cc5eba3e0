import { compareHoldings, readHolding, type Finding, type Holding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

/** Facets that a declared loss of an item or a container may touch. */
const EXPLAINED: Readonly<Record<string, readonly string[]>> = {
  // Of another kind, answers do not compare, and neither does what they are told.
  'loss-kind': [
    'kind',
    'feedback',
    'wording',
    'choices',
    'choice-order',
    'shuffle',
    'key',
    'scoring',
    'points',
    'files',
    'mathematics',
  ],
  'loss-scoring': ['scoring', 'key', 'tolerance', 'case-sensitivity', 'points'],
  'loss-feedback': ['feedback'],
  'loss-draw': ['draw', 'membership', 'points', 'sections', 'shuffle'],
  'loss-section': ['sections', 'shuffle', 'instructions', 'membership'],
  'loss-settings': ['shuffle', 'instructions', 'pass-mark', 'dates', 'attempts', 'time-limit'],
  'loss-bank': ['title', 'membership'],
  'loss-metadata': ['category'],
};

/** What differs without a loss that explains it. */
export function unexplained(before: Holding, after: Holding, losses: readonly Finding[]): string[] {
  const report = compareHoldings(before, after);
  const allowed = (node: string | null, facet: string): boolean =>
    losses.some((l) => l.where.node === node && (EXPLAINED[l.code]?.includes(facet) ?? false));
  const containers = report.containers.filter((c) => c.state !== 'intact');
  return [
    ...report.pairs.flatMap((p) =>
      p.differences
        .filter((d) => !allowed(p.source, d.facet))
        .map((d) => `${p.source} ${d.facet}: ${JSON.stringify(d.from)} -> ${JSON.stringify(d.to)}`),
    ),
    ...report.missing.map((m) => `missing ${m.id}`),
    // A cartridge writes what stands in a quiz and in a bank in both.
    ...report.extra
      .filter((m) => !(m.id.endsWith('#2') && losses.some((l) => l.code === 'loss-bank')))
      .map((m) => `extra ${m.id}`),
    ...containers.flatMap((c) =>
      c.differences
        .filter((d) => !allowed(c.source, d.facet))
        .map((d) => `${c.kind} ${d.facet}: ${JSON.stringify(d.from)} -> ${JSON.stringify(d.to)}`),
    ),
    ...containers
      .filter((c) => c.state === 'missing' && !allowed(c.source, 'membership'))
      .map((c) => `missing ${c.kind}`),
  ];
}

/** A series read back as one holding. */
export async function readAll(packages: readonly Uint8Array[]): Promise<Holding> {
  const parts = await Promise.all(packages.map((p) => readHolding('back.zip', p, nodePlatform)));
  const [first] = parts;
  return {
    ...first!,
    items: parts.flatMap((p) => p.items),
    banks: parts.flatMap((p) => p.banks),
    findings: parts.flatMap((p) => p.findings),
  };
}
