import { parseAnswers, scoreReport } from '@alforja/core';
import { EXIT, printJson, type Exit } from './output.ts';
import { oneNamed, readSource } from './source.ts';

export async function score(
  file: string,
  name: string,
  options: { response: readonly string[]; json?: boolean; rules?: string },
): Promise<Exit> {
  const { holding } = await readSource(file, options.rules);
  const item = oneNamed(holding.items, name);
  const report = scoreReport(item, parseAnswers(item, options.response));
  if (options.json) printJson(report);
  else {
    const shown = report.feedback.map(({ kind, text }) => `${kind}: ${text}\n`);
    process.stdout.write([`${report.score} of ${report.maximum} points\n`, ...shown].join(''));
  }
  return EXIT.done;
}
