import { plainNumber } from '../../model/number.ts';
import { rubricPoints, type Rubric } from '../../model/rubric.ts';
import { escapeText } from '../../xml/write.ts';

const STYLE =
  '@page{size:A4 landscape;margin:14mm}body{font:11pt/1.4 Georgia,"Noto Serif",serif;color:#23262b;margin:10mm auto;max-width:260mm}h1{font-size:16pt}table{border-collapse:collapse;width:100%}th,td{border:1px solid #b9ae9c;padding:2mm;text-align:start;vertical-align:top;overflow-wrap:anywhere}thead th{background:#f7f3ec}tr{break-inside:avoid}.n{font-variant-numeric:tabular-nums;white-space:nowrap}';
const text = (t: string): string => escapeText(t).replace(/\n/gu, '<br>');

/** A page to read and to print: criteria down, levels across, points and total. */
export function rubricsHtml(rubrics: readonly Rubric[]): string {
  const parts = rubrics.map((r) => {
    const total = rubricPoints(r);
    const rows = r.criteria.map((c) => {
      const cells = c.levels.map(
        (l) =>
          `<td dir="auto"><b>${text(l.title)}</b>${l.points ? ` <span class="n">${plainNumber(l.points.low)}${l.points.low === l.points.high ? '' : `–${plainNumber(l.points.high)}`}</span>` : ''}${l.description ? `<br>${text(l.description)}` : ''}${l.feedback ? `<br><i>${text(l.feedback)}</i>` : ''}</td>`,
      );
      const weight =
        c.weight === null
          ? ''
          : ` <span class="n">× ${plainNumber(c.weight)}${r.mode === 'percentage' ? '%' : ''}</span>`;
      return `<tr><th scope="row" dir="auto">${text(c.title)}${weight}${c.description ? `<br><small>${text(c.description)}</small>` : ''}</th>${cells.join('')}</tr>`;
    });
    return `<section><h1 dir="auto">${text(r.title)}</h1>${r.description ? `<p dir="auto">${text(r.description)}</p>` : ''}<table><tbody>${rows.join('')}</tbody></table><p class="n">${total === null ? 'Not scored' : `Total: ${plainNumber(total)} points`}</p></section>`;
  });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${text(rubrics[0]?.title ?? 'Rubrics')}</title><style>${STYLE}</style></head><body>${parts.join('')}</body></html>\n`;
}
