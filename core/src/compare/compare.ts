import { matchItems, type MatchOptions } from '../match/match.ts';
import type { Holding, Item } from '../model/holding.ts';
import { nameOf } from '../model/plainText.ts';
import { refill } from '../scoring/budget.ts';
import { compareContainers } from './containers.ts';
import { compareRubrics } from './compareRubrics.ts';
import { compareFamilies } from './families.ts';
import { compareItems } from './items.ts';
import { fileContents, nameIn } from './side.ts';
import type { Comparison, PairReport } from './types.ts';

/** Compares what was planned with what arrived: items, containers and files. */
export function compareHoldings(source: Holding, arrived: Holding, options: MatchOptions = {}): Comparison {
  refill();
  const { pairs, missing, extra } = matchItems(source.items, arrived.items, options);
  const sourceFiles = fileContents(source);
  const arrivedFiles = fileContents(arrived);
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
  const { missingFiles, alteredFiles } = compareAllFiles(source, arrived);
  const altered = reports.filter((r) => r.state === 'altered').length;
  const counts = { intact: reports.length - altered, altered, missing: missing.length, extra: extra.length };
  const incomplete =
    missing.length > 0 || containers.some((c) => c.state === 'missing') || missingFiles.length > 0;
  const changed =
    alteredFiles.length > 0 ||
    altered > 0 ||
    extra.length > 0 ||
    containers.some((c) => c.state !== 'intact');
  return {
    verdict: incomplete ? 'incomplete' : changed ? 'altered' : 'intact',
    counts,
    pairs: reports,
    missing: missing.map(named),
    extra: extra.map(named),
    containers,
    missingFiles,
    alteredFiles,
    families: compareFamilies(source, pairs, reports),
  };
}

const named = (item: Item): { id: string; title: string } => ({ id: item.id, title: nameOf(item) });

/** Schemas and style sheets that a system adds or leaves out say nothing about what was carried. */
const SUPPORT_FILE = /\.(?:xsd|dtd|css|xsl)$/iu;

/**
 * Files that arrived nowhere, by their bytes. One of the same name that holds something else is altered, not
 * missing; where an item refers to it, the item says so.
 */
function compareAllFiles(
  source: Holding,
  arrived: Holding,
): { missingFiles: string[]; alteredFiles: string[] } {
  const called = (path: string): string => nameIn(path).toLowerCase();
  const there = new Set(arrived.files.map((f) => f.sha256));
  const here = new Set(source.files.map((f) => f.sha256));
  const other = new Set(arrived.files.filter((f) => !here.has(f.sha256)).map((f) => called(f.path)));
  const gone = source.files
    .filter((f) => !SUPPORT_FILE.test(f.path) && !there.has(f.sha256))
    .map((f) => f.path);
  const told = new Set(source.items.flatMap((i) => i.files.map((f) => f.path)));
  return {
    missingFiles: gone.filter((path) => !other.has(called(path))),
    alteredFiles: gone.filter((path) => other.has(called(path)) && !told.has(path)),
  };
}
