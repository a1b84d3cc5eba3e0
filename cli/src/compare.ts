import { applyEdits, comparePlanned, comparisonInWords, sayDifference, sayRefusal } from '@alforja/core';
import { plainRefusal, readEdits } from './mend.ts';
import { EXIT, printJson, type Exit } from './output.ts';
import { readSource } from './source.ts';

export async function compare(
  source: string,
  arrived: string,
  options: { json?: boolean; rules?: string; edits?: string },
): Promise<Exit> {
  const edits = options.edits === undefined ? [] : await readEdits(options.edits);
  // An item that lies packed is unpacked with its neighbours; what arrived may stand in any order.
  const trees = Number.POSITIVE_INFINITY;
  const left = await readSource(source, options.rules, { edits, trees });
  const right = await readSource(arrived, options.rules, { trees });
  const planned = applyEdits(left.holding, edits);
  const compared = comparePlanned(left.holding, planned.holding, right.holding);
  const comparison = comparisonInWords(compared.comparison);
  const onPurpose = compared.onPurpose.map(({ kind, node, difference }) => {
    const { facet, from, to } = sayDifference(difference);
    return { node, kind, facet, from, to };
  });
  if (options.json)
    printJson(
      options.edits === undefined
        ? comparison
        : { ...comparison, onPurpose, refused: planned.refused.map(plainRefusal) },
    );
  else {
    const { counts, verdict } = comparison;
    const lines = [
      `${verdict}: ${counts.intact} intact, ${counts.altered} altered, ${counts.missing} missing, ${counts.extra} extra`,
    ];
    const anew = comparison.families.filter((f) => f.state === 'reseeded');
    lines.push(...anew.map((f) => `anew     ${f.title}: ${f.items.length} replicas with other numbers`));
    const told = new Set(anew.flatMap((f) => f.items));
    for (const pair of comparison.pairs) {
      if (told.has(pair.source)) continue;
      for (const d of pair.differences) {
        lines.push(`altered  ${pair.source}  ${d.facet}: ${d.from} -> ${d.to}`);
        if (d.example)
          lines.push(
            `         answer ${JSON.stringify(d.example.response)}: ${d.example.from} before, ${d.example.to} now`,
          );
      }
    }
    lines.push(
      ...comparison.families
        .flatMap((f) => f.stale)
        .map(({ item, key }) => `stale    ${item}  the key ${key} did not follow its numbers`),
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
    lines.push(...onPurpose.map((p) => `on purpose  ${p.node}  ${p.facet}: ${p.from} -> ${p.to}`));
    process.stdout.write(`${lines.join('\n')}\n`);
    for (const { at, why } of planned.refused)
      process.stderr.write(`not planned: edit ${at + 1}: ${sayRefusal(why)}\n`);
  }
  const found = comparison.verdict !== 'intact' || planned.refused.length > 0;
  return found ? EXIT.found : EXIT.done;
}
