import { inspectReport } from '@alforja/core';
import { exitFor, printFindings, printJson, type Exit } from './output.ts';
import { readLayout, readSource } from './source.ts';

export async function inspect(
  file: string,
  options: { json?: boolean; rules?: string; layout?: string },
): Promise<Exit> {
  const { holding } = await readSource(file, options.rules, { layout: await readLayout(options.layout) });
  const report = inspectReport(holding);
  if (options.json) {
    printJson(report);
    return exitFor(holding.findings);
  }
  const { format, quizzes, banks, items, links, files, rubrics, families } = report;
  const lines = [
    `${report.source.name}: ${format.standard} ${format.version ?? ''} (${format.container}), ${report.source.bytes} bytes`,
    ...quizzes.map((q) => `quiz  ${q.title || q.id}: ${q.items} items, ${q.points} points`),
    ...banks.map((b) => `bank  ${b.title || b.id}: ${b.items} items`),
    ...families.map((f) => `family  ${f.title}: ${f.items.length} replicas (${f.varies.join(', ')})`),
    ...items.map(
      (i) =>
        `item  ${i.id}  ${i.points} points  ${i.scoring}  ${(i.title || i.stem).slice(0, 60)}  [${i.key.join('; ')}]`,
    ),
    ...rubrics.map(
      (r) =>
        `rubric  ${r.title || r.id}: ${r.criteria.length} criteria, ${r.points === null ? 'not scored' : `${r.points} points`}`,
    ),
    ...links.map((l) => `link  ${l.title} ${l.url}`),
    `${files.length} files`,
  ];
  process.stdout.write(`${lines.join('\n')}\n`);
  printFindings(holding.findings);
  return exitFor(holding.findings);
}
