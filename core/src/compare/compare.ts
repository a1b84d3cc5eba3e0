import { matchItems, type MatchOptions } from '../match/match.ts';
import type { Holding, Item } from '../model/holding.ts';
import { nameOf } from '../model/plainText.ts';
import { compareContainers } from './containers.ts';
import { compareRubrics } from './compareRubrics.ts';
import { compareItems, type FileContent } from './items.ts';
import type { Comparison, PairReport } from './types.ts';

/** Compares what was planned with what arrived: items, containers and files. */
export function compareHoldings(source: Holding, arrived: Holding, options: MatchOptions = {}): Comparison {
  const { pairs, missing, extra } = matchItems(source.items, arrived.items, options);
  const sourceFiles = contentOf(source);
  const arrivedFiles = contentOf(arrived);
  const reports = pairs.map(({ source: a, arrived: b, by }): PairReport => {
    const differences = compareItems(a, b, sourceFiles, arrivedFiles);
    return {
      source: a.id,
      arrived: b.id,
      by,
      state: differences.length > 0 ? 'altered' : 'intact',
      differences,
    };
  });
  const items = new Map(pairs.map((p) => [p.source.id, p.arrived.id]));
  const containers = [
    ...compareContainers({ source, arrived, items }),
    ...compareRubrics(source.rubrics, arrived.rubrics),
  ];
  const missingFiles = filesMissing(source, arrived);
  const altered = reports.filter((r) => r.state === 'altered').length;
  const counts = { intact: reports.length - altered, altered, missing: missing.length, extra: extra.length };
  const incomplete =
    missing.length > 0 || containers.some((c) => c.state === 'missing') || missingFiles.length > 0;
  const changed = altered > 0 || extra.length > 0 || containers.some((c) => c.state !== 'intact');
  return {
    verdict: incomplete ? 'incomplete' : changed ? 'altered' : 'intact',
    counts,
    pairs: reports,
    missing: missing.map(named),
    extra: extra.map(named),
    containers,
    missingFiles,
  };
}

const named = (item: Item): { id: string; title: string } => ({ id: item.id, title: nameOf(item) });

function contentOf(holding: Holding): FileContent {
  const hashes = new Map(holding.files.map((f) => [f.path, f.sha256]));
  return (path) => hashes.get(path) ?? null;
}

/** Schemas and style sheets that a system adds or leaves out say nothing about what was carried. */
const SUPPORT_FILE = /\.(?:xsd|dtd|css|xsl)$/iu;

function filesMissing(source: Holding, arrived: Holding): string[] {
  const there = new Set(arrived.files.map((f) => f.sha256));
  return source.files.filter((f) => !SUPPORT_FILE.test(f.path) && !there.has(f.sha256)).map((f) => f.path);
}
