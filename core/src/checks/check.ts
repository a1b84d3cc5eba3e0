import type { FindingCode } from '../model/codes.ts';
import type { Finding, Params, Severity } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';
import { placeOf } from '../model/origin.ts';

/** A rule of good practice or of the standards, run on what was read. */
export interface Check {
  readonly code: FindingCode;
  readonly severity: Severity;
  /** Run for each item; `files` are the paths of the package's files. */
  readonly item?: (item: Item, files: ReadonlySet<string>) => readonly Params[];
  /** Run once; each result names the node it is about. */
  readonly whole?: (holding: Holding) => readonly { node: string; params: Params; path?: string | null }[];
}

export function itemFinding(check: Check, item: Item, params: Params): Finding {
  const where = { ...placeOf(item.origin), node: item.id };
  return { code: check.code, severity: check.severity, where, params };
}
