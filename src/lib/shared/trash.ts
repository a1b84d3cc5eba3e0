/** What can be thrown away and brought back. A look is a course as it was read at a moment. */
export const THROWABLE = ['package', 'transfer', 'batch', 'look', 'made'] as const;
export type Throwable = (typeof THROWABLE)[number];

/** Days for which what was thrown away can be brought back. */
export const KEPT_DAYS = 30;

export interface Thrown {
  readonly kind: Throwable;
  readonly id: string;
  readonly name: string;
  readonly thrownAt: number;
}
