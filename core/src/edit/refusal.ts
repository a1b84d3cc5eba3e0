/** Why an edit cannot be done, with what its words speak of. Wording stands in report/edits.ts. */
export const REFUSALS = {
  'not-an-edit': ['detail'],
  'node-unknown': ['node'],
  'node-ambiguous': ['node'],
  'node-kind': ['node', 'wants'],
  stale: ['was', 'now'],
  'text-too-long': ['limit'],
  'blanks-changed': ['blanks'],
  'slots-changed': ['count'],
  'content-place': ['at'],
  'choice-unknown': ['choice', 'known'],
  'choice-exists': ['choice'],
  'choice-id': ['choice'],
  'choice-last': [],
  'choice-only-right': ['choice'],
  'choice-place': [],
  'response-unknown': ['response', 'known'],
  'response-needed': ['known'],
  'scoring-program': [],
  'scoring-other': ['op', 'kind'],
  'scoring-not-as-asked': [],
  'parameters-drawn': [],
  'key-empty': [],
  'key-several': ['count'],
  'key-value': ['value', 'wants'],
  'answer-twice': ['text'],
  'points-negative': [],
  'bounds-order': [],
  'bounds-around': ['value', 'low', 'high'],
  'feedback-none': ['on'],
  'file-unknown': ['path', 'known'],
  'file-taken': ['path'],
  'document-unknown': ['path', 'known'],
  'block-unknown': ['block', 'blocks'],
  'section-unknown': ['section', 'known'],
  'section-used': ['section'],
  'draw-none': ['section'],
  'draw-pick': ['pick', 'of'],
  'bank-unknown': ['bank'],
  'item-not-here': ['item'],
  'item-drawn': ['item'],
  'replicas-none': [],
  'order-other': [],
  'dates-order': [],
  'nothing-to-split': [],
  'cell-read-only': ['column'],
  'cell-number': ['text'],
  'cell-choices': ['text', 'known'],
  'cell-yes-no': ['text'],
  'cell-range': ['text'],
} as const satisfies Record<string, readonly string[]>;
export type RefusalCode = keyof typeof REFUSALS;

type Params<C extends RefusalCode> = { readonly [P in (typeof REFUSALS)[C][number]]: string | number };

export interface Refused {
  readonly refused: RefusalCode;
  readonly params: Readonly<Record<string, string | number>>;
}

export const refused = <C extends RefusalCode>(
  code: C,
  ...[params]: (typeof REFUSALS)[C] extends readonly [] ? [] : [params: Params<C>]
): Refused => ({ refused: code, params: params ?? {} });

export const isRefused = (value: unknown): value is Refused =>
  typeof value === 'object' && value !== null && 'refused' in value;
