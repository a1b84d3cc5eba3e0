import { finding, type Finding, type Severity } from '../model/finding.ts';
import type { Quiz } from '../model/holding.ts';

/** Notes that a target cannot say something; settings of a quiz are noted by `lostSetting`. */
export type Lose = (
  code: 'loss-kind' | 'loss-scoring' | 'loss-draw' | 'loss-feedback' | 'loss-section' | 'loss-metadata',
  severity: Severity,
  what: string,
) => void;

/** A setting of a quiz that a target has no place for. */
export const lostSetting = (
  { id, origin }: Quiz,
  setting: 'dates' | 'pass-mark' | 'shuffle' | 'instructions' | 'conditions',
  what: string,
): Finding =>
  finding('loss-settings', 'warning', { path: origin?.path ?? null, node: id }, { what, setting });

/** No package format has a place for dates. */
export const lostDates = (quiz: Quiz): Finding[] =>
  quiz.settings.opens || quiz.settings.closes
    ? [lostSetting(quiz, 'dates', 'opening and closing dates')]
    : [];
