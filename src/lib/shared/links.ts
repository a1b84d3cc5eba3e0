/** Links and what following them came to, as values that cross to the screens. */

export interface LinkStep {
  readonly url: string;
  /** Null where there was no answer. */
  readonly status: number | null;
}

export interface LinkTest {
  /** The address as it was given. */
  readonly url: string;
  readonly why:
    | 'opens'
    | 'launch-only'
    | 'not-found'
    | 'asks-to-sign-in'
    | 'refused'
    | 'no-answer'
    | 'no-answer-in-time'
    | 'name-unknown'
    | 'certificate'
    | 'private-address'
    | 'too-many-redirects'
    | 'no-address';
  readonly status: number | null;
  /** Every address on the way, the first as it was given. */
  readonly steps: readonly LinkStep[];
}

/** A link that can be tested. */
export interface LinkLine {
  readonly title: string;
  readonly kind: 'web' | 'lti';
  readonly url: string;
}

/** So many are tested at once. */
export const MOST_LINKS = 100;
