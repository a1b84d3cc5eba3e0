import type { Finding } from '../model/finding.ts';
import type { DraftChange } from './changes.ts';
import type { Composed } from './compose.ts';
import type { QuizDraft } from './draft.ts';
import type { Outlook } from './outlook.ts';
import type { Shelves } from './pool.ts';

/** Something that is wrong with a quiz that is being made, or may be, and what puts it right. */
export interface Hazard {
  readonly finding: Finding;
  /** The section it is about; null: the quiz. */
  readonly section: string | null;
  /** The item it is about, by its id in the quiz. */
  readonly item: string | null;
  /** What puts it right; null where only a person can say what is right. */
  readonly changes: readonly DraftChange[] | null;
}

/** What hazards are looked for in. */
export interface Situation extends Composed {
  readonly draft: QuizDraft;
  readonly shelves: Shelves;
  readonly outlook: Outlook;
  /** Whether the items themselves are at hand, or only what lists know of them: then they are not looked at one by one. */
  readonly whole: boolean;
}

/** A hazard of the quiz as a whole. */
export const whole = (of: Finding, changes: Hazard['changes'] = null): Hazard => ({
  finding: of,
  section: null,
  item: null,
  changes,
});
