import type { FindingCode } from './codes.ts';

export type Severity = 'error' | 'warning' | 'note';

/**
 * A place in a source. `path` is a package path ("outer.zip!/inner/path" inside a nested package); line and
 * column count from 1.
 */
export interface Where {
  readonly path: string | null;
  readonly line: number | null;
  readonly column: number | null;
  /** The id of the item, quiz, bank … concerned. */
  readonly node: string | null;
}

export type Params = Readonly<Record<string, string | number>>;

/**
 * One shape for intake, readers, checks, forecast and compare. Wording is found by `code` (report/words.ts).
 */
export interface Finding {
  readonly code: FindingCode;
  readonly severity: Severity;
  readonly where: Where;
  readonly params: Params;
}

const NOWHERE: Where = { path: null, line: null, column: null, node: null };

/** Makes a finding; `where` may be partial. */
export function finding(
  code: FindingCode,
  severity: Severity,
  where: Partial<Where> = {},
  params: Params = {},
): Finding {
  return { code, severity, where: { ...NOWHERE, ...where }, params };
}

/** A file that cannot be opened or trusted at all. The only thing readers throw on bad input. */
export class Refusal extends Error {
  constructor(readonly finding: Finding) {
    super(finding.code);
    this.name = 'Refusal';
  }
}

/** Throws a Refusal with an error finding. */
export function refuse(code: FindingCode, where: Partial<Where> = {}, params: Params = {}): never {
  throw new Refusal(finding(code, 'error', where, params));
}
