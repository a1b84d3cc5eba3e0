/** Every finding code there is. Wording for each stands in report/words.ts; a test holds the two together. */
export const FINDING_CODES = [
  // intake
  'file-empty', 'format-unknown', 'format-not-read-yet', 'archive-unsafe-name', 'archive-duplicate-name',
  'archive-encrypted', 'archive-truncated', 'archive-size-false', 'archive-crc', 'archive-too-large',
  'archive-method', 'archive-nested-too-deep', 'archive-surrounded', 'archive-backslashes', 'nested-package',
  'wrapper-folder', 'system-files-ignored', 'encoding-repaired', 'xml-malformed', 'xml-entity-refused',
  'xml-too-deep', 'doctype-ignored', 'manifest-missing', 'declared-type-wrong', 'file-missing', 'file-unlisted',
  'file-name-differs', 'package-empty',
  // readers
  'title-missing', 'opaque-content', 'active-content-removed', 'remote-media', 'identifier-repeated',
  'item-ref-missing', 'resource-unread', 'scoring-untranslated', 'template-unknown', 'points-disagree', 'filebase-moved',
  'stylesheet-ignored', 'reading-proposed', 'rules-unreadable',
  // checks
  'key-missing', 'key-unknown-choice', 'key-several-on-single', 'points-not-positive', 'stem-empty',
  'duplicate-choices', 'all-of-the-above-shuffled', 'draw-too-large', 'draw-points-unequal',
  'scoring-type', 'tolerance-missing', 'solution-with-attempts', 'maximum-below-points', 'image-alt-missing', 'link-dead', 'key-longest',
  'dates-impossible', 'quiz-unnamed', 'bank-mixed-kinds', 'item-unused', 'duplicate-items', 'near-duplicate-items',
  // writing
  'loss-kind', 'loss-scoring', 'loss-draw', 'loss-bank', 'loss-feedback', 'loss-settings', 'loss-section',
  'loss-metadata', 'loss-link', 'file-not-written',
  // rubrics
  'json-malformed', 'rubrics-none', 'rubric-unread', 'rubric-header-missing', 'rubric-row-unread', 'rubric-points-unread',
  'rubric-no-levels', 'rubric-levels-order', 'rubric-equal-points', 'rubric-description-empty', 'rubric-weights',
  'rubric-same-content', 'rubric-same-name', 'rubric-points-differ', 'rubric-unattached', 'loss-rubric', 'rubric-not-taken',
  // the command line and forms
  'response-unknown', 'choice-unknown', 'usage', 'file-unreadable', 'node-unknown', 'node-ambiguous',
  'target-unknown', 'target-exists', 'job-failed', 'carry-failed', 'upload-too-large',
] as const; // prettier-ignore
export type FindingCode = (typeof FINDING_CODES)[number];
