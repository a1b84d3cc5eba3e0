import type { FindingCode, FINDINGS, ParamsOf } from './codes.ts';

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

/**
 * One shape for intake, readers, checks, forecast and compare. Wording is found by `code` (report/words.ts).
 */
export type Finding<Codes extends FindingCode = FindingCode> = {
  readonly [C in Codes]: {
    readonly code: C;
    readonly severity: Severity;
    readonly where: Where;
    readonly params: ParamsOf<C>;
  };
}[Codes];

const NOWHERE: Where = { path: null, line: null, column: null, node: null };

/** The parameters of a code as arguments: none where it has none. */
export type ParamsArgument<C extends FindingCode> = [(typeof FINDINGS)[C]] extends [Record<string, never>]
  ? [params?: ParamsOf<C>]
  : [params: ParamsOf<C>];

/** Makes a finding; `where` may be partial. */
export const finding = <C extends FindingCode>(
  code: C,
  severity: Severity,
  where: Partial<Where>,
  ...[params]: ParamsArgument<C>
): Finding => findingWith(code, severity, where, params ?? ({} as ParamsOf<C>));

/** The same, where the parameters are at hand whatever the code. */
export function findingWith<C extends FindingCode>(
  code: C,
  severity: Severity,
  where: Partial<Where>,
  params: ParamsOf<C>,
): Finding {
  // A mapped type over all codes: that code and parameters belong together is what the arguments say.
  return { code, severity, where: { ...NOWHERE, ...where }, params } as unknown as Finding;
}

/** A file that cannot be opened or trusted at all. The only thing readers throw on bad input. */
export class Refusal extends Error {
  constructor(readonly finding: Finding) {
    super(finding.code);
    this.name = 'Refusal';
  }
}

/** Throws a Refusal with an error finding. */
export function refuse<C extends FindingCode>(
  code: C,
  where: Partial<Where>,
  ...params: ParamsArgument<C>
): never {
  throw new Refusal(finding(code, 'error', where, ...params));
}
