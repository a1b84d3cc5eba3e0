import { compareHoldings, comparisonInWords } from '@alforja/core';
import { EXIT, printJson, type Exit } from './output.ts';
import { readSource } from './source.ts';

export async function compare(
  source: string,
  arrived: string,
  options: { json?: boolean; rules?: string },
): Promise<Exit> {
  const [left, right] = [await readSource(source, options.rules), await readSource(arrived, options.rules)];
  const comparison = comparisonInWords(compareHoldings(left.holding, right.holding));
  if (options.json) printJson(comparison);
  else {
    const { counts, verdict } = comparison;
    const lines = [
      `${verdict}: ${counts.intact} intact, ${counts.altered} altered, ${counts.missing} missing, ${counts.extra} extra`,
    ];
    for (const pair of comparison.pairs) {
      for (const d of pair.differences) {
        lines.push(`altered  ${pair.source}  ${d.facet}: ${d.from} -> ${d.to}`);
        if (d.example)
          lines.push(
            `         answer ${JSON.stringify(d.example.response)}: ${d.example.from} before, ${d.example.to} now`,
          );
      }
    }
    lines.push(
      ...comparison.missing.map((m) => `missing  ${m.id}  ${m.title}`),
      ...comparison.extra.map((m) => `extra    ${m.id}  ${m.title}`),
    );
    for (const c of comparison.containers) {
      if (c.state === 'intact') continue;
      lines.push(
        `${c.state}  ${c.kind} ${c.source ?? c.arrived}`,
        ...c.differences.map((d) => `         ${d.facet}: ${d.from} -> ${d.to}`),
      );
    }
    lines.push(
      ...comparison.missingFiles.map((f) => `missing  file ${f}`),
      ...comparison.alteredFiles.map((f) => `altered  file ${f}`),
    );
    process.stdout.write(`${lines.join('\n')}\n`);
  }
  return comparison.verdict === 'intact' ? EXIT.done : EXIT.found;
}
