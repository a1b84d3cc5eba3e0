import type { Interaction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf } from '../model/options.ts';
import { optionText, plain } from '../model/plainText.ts';
import { interactionsOf } from '../model/visit.ts';

/**
 * Seconds to think and to answer, by kind, beside reading (common practice: a minute for a choice, a minute and a half
 * for a number, ten minutes for a page of writing).
 */
const ANSWERING: Readonly<Record<Interaction['kind'], number>> = {
  choice: 40,
  order: 60,
  associate: 60,
  match: 60,
  gapMatch: 60,
  inlineChoice: 25,
  textEntry: 75,
  extendedText: 0,
  hottext: 40,
  hotspot: 40,
  selectPoint: 45,
  graphicOrder: 60,
  graphicAssociate: 60,
  graphicGapMatch: 60,
  positionObject: 60,
  slider: 40,
  upload: 600,
  drawing: 300,
  media: 60,
  endAttempt: 0,
  custom: 120,
};
/** Words a minute of careful reading; letters of scripts without blanks count as words (common practice). */
const WORDS_A_MINUTE = 180;
const LETTERS_A_LINE = 70;
const SECONDS_A_LINE = 40;
const LINES_UNSAID = 8;
const WORD = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{N}]+/gu;

/** How long an item takes, in seconds: an estimate from what there is to read and how it is answered. */
export function secondsFor(item: Item): number {
  const text = [
    ...item.stimuli.map((s) => plain(s.content)),
    plain(item.body),
    ...choicesOf(item).map(optionText),
  ].join(' ');
  const words = text.match(WORD)?.length ?? 0;
  const answering = interactionsOf(item).reduce((sum, i) => sum + secondsOf(i), 0);
  return Math.round((words / WORDS_A_MINUTE) * 60 + answering);
}

function secondsOf(interaction: Interaction): number {
  if (interaction.kind !== 'extendedText') return ANSWERING[interaction.kind];
  const { expectedLines, expectedLength } = interaction;
  const lines =
    expectedLines ?? (expectedLength === null ? LINES_UNSAID : Math.ceil(expectedLength / LETTERS_A_LINE));
  return Math.max(1, lines) * SECONDS_A_LINE;
}
