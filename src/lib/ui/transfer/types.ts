/** A difference, what can be done about it, and what somebody decided. */
export interface Judged {
  readonly key: string;
  readonly what: string;
  readonly planned: string;
  readonly found: string;
  readonly mend: 'set' | 'remove' | 'resend' | 'renew' | null;
  readonly decision: { readonly reason: string; readonly by: string; readonly at: number } | null;
}
