/** What a parameter of a finding is. */
const text = 'text';
const number = 'number';

/**
 * Every finding there is, by its code, with the parameters it has. Wording for each stands in
 * report/words.ts; a test holds the two together.
 */
export const FINDINGS = {
  // intake
  'file-empty': {},
  'format-unknown': { container: text },
  'archive-unsafe-name': { name: text },
  'archive-duplicate-name': { name: text },
  'archive-encrypted': { name: text },
  'archive-truncated': { detail: text },
  'archive-size-false': { name: text },
  'archive-crc': { detail: text },
  'archive-too-large': { what: text, found: number, limit: number },
  'archive-method': { method: number },
  'archive-nested-too-deep': { limit: number },
  'archive-surrounded': {},
  'archive-backslashes': { count: number },
  'nested-package': {},
  'wrapper-folder': { folder: text },
  'system-files-ignored': { count: number },
  'encoding-repaired': { declared: text, used: text },
  'xml-malformed': { detail: text },
  'xml-entity-refused': { names: text },
  'xml-entity-known': { names: text },
  'xml-too-deep': { detail: text },
  'doctype-ignored': {},
  'manifest-missing': {},
  'dependency-missing': { resource: text },
  'declared-type-wrong': { declared: text, found: text },
  'file-missing': { path: text },
  'file-unlisted': {},
  'file-name-differs': { listed: text, found: text },
  'package-empty': {},
  // readers
  'title-missing': { used: text },
  'opaque-content': { what: text },
  'active-content-removed': { what: text },
  'remote-media': { address: text },
  'markup-escaped-twice': {},
  'identifier-repeated': { id: text, kind: text },
  'item-ref-missing': { item: text },
  'resource-unread': { kind: text },
  'scoring-untranslated': { what: text },
  'template-unknown': { template: text },
  'points-disagree': { said: text, used: number },
  'filebase-moved': { from: text, to: text },
  'stylesheet-ignored': { href: text },
  'reading-proposed': { label: text, means: text, origin: text, values: text },
  'rules-unreadable': { detail: text },
  // documents of questions
  'layout-unreadable': { detail: text },
  'questions-none': {},
  'key-unsure': { why: text },
  'points-assumed': { points: number },
  'blocks-unread': { count: number, first: text },
  'answers-unpaired': { answers: text },
  'picture-unread': { what: text },
  'document-scanned': { pages: number },
  'pages-scanned': { pages: text },
  'document-protected': {},
  'document-damaged': { detail: text },
  // checks
  'key-missing': {},
  'blank-unanswered': { blank: number, response: text },
  'key-unknown-choice': { choice: text, response: text },
  'key-several-on-single': { count: number, response: text },
  'points-not-positive': { points: number },
  'stem-empty': {},
  'duplicate-choices': { text, first: text, second: text },
  'all-of-the-above-shuffled': { text },
  'draw-too-large': { pick: number, of: number, section: text },
  'draw-points-unequal': { points: text, section: text },
  'scoring-type': { what: text },
  'tolerance-missing': { value: number },
  'solution-with-attempts': { attempts: text, told: number },
  'points-unreached': { found: text, stated: text },
  'image-alt-missing': { file: text },
  'link-dead': { href: text },
  'key-longest': { length: number, next: number },
  'dates-impossible': { opens: text, closes: text },
  'quiz-unnamed': {},
  'bank-mixed-kinds': { said: text },
  'item-unused': {},
  'duplicate-items': { other: text },
  'near-duplicate-items': { percent: number, other: text },
  'family-points-unequal': { family: text, points: text },
  'family-key-stale': { key: text, why: text },
  'family-draw-partial': { section: text, family: text, lacking: number },
  'family-drawn-twice': { section: text, family: text, count: number },
  // writing
  'loss-kind': { what: text },
  'loss-scoring': { what: text },
  'loss-draw': { what: text },
  'loss-bank': { what: text },
  'loss-feedback': { what: text },
  'loss-settings': { what: text, setting: text },
  'loss-section': { what: text },
  'loss-metadata': { what: text },
  'loss-link': { what: text },
  'file-not-written': { path: text },
  'versions-unequal': { said: text, points: number },
  'replicas-few': { made: number, wanted: number },
  'replica-unproved': { seed: number },
  // rubrics
  'json-malformed': { detail: text },
  'rubrics-none': {},
  'rubric-unread': { at: number, detail: text },
  'rubric-header-missing': {},
  'rubric-row-unread': {},
  'rubric-points-unread': { text },
  'rubric-no-levels': { rubric: text, criterion: text },
  'rubric-levels-order': { rubric: text, criterion: text },
  'rubric-equal-points': { rubric: text, criterion: text, points: text },
  'rubric-description-empty': { rubric: text, criterion: text, count: number },
  'rubric-weights': { rubric: text, sum: text },
  'rubric-same-content': { first: text, second: text },
  'rubric-same-name': { title: text },
  'rubric-points-differ': { rubric: text, total: text, item: text, points: text },
  'rubric-unattached': { rubric: text },
  'loss-rubric': { rubric: text, what: text },
  'rubric-not-taken': { rubric: text },
  // the command line and forms
  'response-unknown': { response: text, known: text },
  'choice-unknown': { choice: text, known: text },
  'edits-unreadable': { detail: text },
  usage: { detail: text },
  'file-unreadable': { detail: text },
  'node-unknown': { name: text },
  'node-ambiguous': { name: text },
  'item-without-templates': { item: text },
  'draw-empty': { section: text },
  // a quiz that is being made
  'source-gone': { count: number },
  'rubric-stays': { rubrics: text },
  'made-too-large': { count: number, limit: number },
  'looked-at-later': { count: number },
  'met-twice': { first: text, other: text, because: text, percent: text },
  'pass-mark-above-total': { mark: number, points: number },
  'time-short': { minutes: number, needs: number, count: number },
  'plan-lacks': { wanted: number, has: number, category: text, kind: text },
  'plan-missed': { gaps: text },
  'category-unasked': { categories: text, count: number },
  'target-unknown': { target: text, known: text },
  'target-exists': { path: text },
  'job-failed': { detail: text },
  'sending-failed': { detail: text, reason: text },
  'upload-too-large': { limit: number },
} as const;

export type FindingCode = keyof typeof FINDINGS;
export const FINDING_CODES = Object.keys(FINDINGS) as readonly FindingCode[];

interface ParameterTypes {
  readonly text: string;
  readonly number: number;
}

/** The parameters of a finding of this code. */
export type ParamsOf<C extends FindingCode> = {
  readonly [P in keyof (typeof FINDINGS)[C]]: (typeof FINDINGS)[C][P] extends keyof ParameterTypes
    ? ParameterTypes[(typeof FINDINGS)[C][P]]
    : never;
};
