import type { FindingCode, ParamsOf } from '../model/codes.ts';
import { findingWith, type Finding, type Severity } from '../model/finding.ts';
import type { Asked } from '../match/asked.ts';
import type { Holding, Item } from '../model/holding.ts';
import { placeOf } from '../model/origin.ts';

/** What an item asks: found while it was at hand, or now. */
export type AskedOf = (item: Item) => Asked;

/** Which files a package has, by their paths. */
export type Files = Pick<ReadonlySet<string>, 'has'>;

/** What a check of whole packages found on one node. */
interface Found<C extends FindingCode> {
  readonly node: string;
  readonly params: ParamsOf<C>;
  readonly path?: string | null;
}

/** A rule of good practice or of the standards, run on what was read. */
export interface Check<C extends FindingCode> {
  readonly code: C;
  readonly severity: Severity;
  /** Run for each item; `files` are the paths of the package's files. */
  readonly item?: (item: Item, files: Files) => readonly ParamsOf<C>[];
  /** Run once; each result names the node it is about. */
  readonly whole?: (holding: Holding, asked: AskedOf) => readonly Found<C>[];
}

/** A check as the catalogue has it: whatever its parameters, it gives findings. */
export interface AnyCheck {
  readonly code: FindingCode;
  readonly severity: Severity;
  /** Whether it looks at items one by one. */
  readonly ofItems: boolean;
  readonly item: (item: Item, files: Files) => Finding[];
  readonly whole: (holding: Holding, asked: AskedOf) => Finding[];
}

export function anyCheck<C extends FindingCode>({ code, severity, item, whole }: Check<C>): AnyCheck {
  const found = (where: Partial<Finding['where']>, params: ParamsOf<C>): Finding =>
    findingWith(code, severity, where, params);
  return {
    code,
    severity,
    ofItems: item !== undefined,
    item: (of, files) =>
      (item?.(of, files) ?? []).map((params) => found({ ...placeOf(of.origin), node: of.id }, params)),
    whole: (holding, asked) =>
      (whole?.(holding, asked) ?? []).map(({ node, path, params }) =>
        found({ node, path: path ?? null }, params),
      ),
  };
}
