import { Buffer } from 'node:buffer';

/**
 * A PDF whose one page draws a form that draws the next so many times, and so on: a drawing of `times` to the power of
 * `levels` in a kilobyte or two (PDF 32000-1:2008, 8.10).
 */
export function laughingPdf(levels: number, times: number): Uint8Array {
  const FIRST_FORM = 4;
  const contents = FIRST_FORM + levels + 1;
  const stream = (about: string, body: string): string =>
    `<<${about}/Length ${body.length}>>stream\n${body}\nendstream`;
  const resources = (form: number): string => `/Resources<</XObject<</F ${form} 0 R>>>>`;
  const objects = [
    '<</Type/Catalog/Pages 2 0 R>>',
    '<</Type/Pages/Count 1/Kids[3 0 R]>>',
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 9 9]${resources(FIRST_FORM + levels)}/Contents ${contents} 0 R>>`,
    ...Array.from({ length: levels + 1 }, (_, n) =>
      n === 0
        ? stream('/Type/XObject/Subtype/Form/BBox[0 0 9 9]', 'q Q')
        : stream(
            `/Type/XObject/Subtype/Form/BBox[0 0 9 9]${resources(FIRST_FORM + n - 1)}`,
            '/F Do '.repeat(times),
          ),
    ),
    stream('', '/F Do'),
  ];
  let out = '%PDF-1.4\n';
  const offsets = objects.map((object, n) => {
    const at = out.length;
    out += `${n + 1} 0 obj${object}\nendobj\n`;
    return at;
  });
  const table = offsets.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  const size = objects.length + 1;
  return Buffer.from(
    `${out}xref\n0 ${size}\n0000000000 65535 f \n${table}trailer<</Size ${size}/Root 1 0 R>>\nstartxref\n${out.length}\n%%EOF`,
    'latin1',
  );
}
