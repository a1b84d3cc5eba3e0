import { sayEdit, speak, type Calling } from '@alforja/core';
import type { ForecastLoss, Plan } from '../../shared/transfers.ts';

/** Changes of one repair that are named. */
const MOST_SAID = 4;

/** What the format loses, in words, with what avoids it. */
export function forecastOf({ findings, repairs }: Plan, called: Calling = (id) => id): ForecastLoss[] {
  const by = new Map(repairs.map((r) => [r.at, r]));
  return findings.map((found, at) => {
    const repair = by.get(at);
    if (!repair) return speak(found);
    const said = repair.edits.slice(0, MOST_SAID).map((edit) => sayEdit(edit, called));
    const more = repair.edits.length - said.length;
    const says = [...said, ...(more > 0 ? [`and ${more} more`] : [])].join('; ');
    return { ...speak(found), avoid: { at, says, scores: saysScores(repair.scores) } };
  });
}

function saysScores(scores: Plan['repairs'][number]['scores']): string | null {
  if (scores === null) return null;
  const { example } = scores;
  if (example === null) return 'some answers score otherwise';
  const answer = (example.answer ?? []).join(' + ') || 'no answer';
  return `“${answer}” scores ${example.from} now and ${example.to} afterwards`;
}
