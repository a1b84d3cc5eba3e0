import { finding, parseAnswers, Refusal, scoreReport } from '@alforja/core';
import { EXIT, printJson, type Exit } from './output.ts';
import { readSource } from './source.ts';

export async function score(
  file: string,
  name: string,
  options: { response: readonly string[]; json?: boolean; rules?: string },
): Promise<Exit> {
  const { holding } = await readSource(file, options.rules);
  const byId = holding.items.find((i) => i.id === name);
  const titled = holding.items.filter((i) => i.title === name);
  const item = byId ?? (titled.length === 1 ? titled[0] : undefined);
  if (!item)
    throw new Refusal(finding(titled.length > 1 ? 'node-ambiguous' : 'node-unknown', 'error', {}, { name }));
  const report = scoreReport(item, parseAnswers(item, options.response));
  if (options.json) printJson(report);
  else {
    const shown = report.feedback.map(({ kind, text }) => `${kind}: ${text}\n`);
    process.stdout.write([`${report.score} of ${report.maximum} points\n`, ...shown].join(''));
  }
  return EXIT.done;
}
