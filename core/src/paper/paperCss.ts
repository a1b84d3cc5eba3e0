/** How a paper is set: black on white, items kept whole, room where it is written in. */
export const PAPER_CSS = `
:root { --size: 11pt; --line: 1.35; --font: Literata, Georgia, 'Times New Roman', serif; }
.large { --size: 18pt; --line: 1.5; }
.plain { --line: 1.6; --font: 'Instrument Sans', Verdana, Arial, sans-serif; letter-spacing: 0.03em; word-spacing: 0.1em; }
.plain i, .plain em { font-style: normal; font-weight: 600; }
body { margin: 0; background: #fff; color: #000; font: var(--size)/var(--line) var(--font); text-align: left; }
main { max-width: 170mm; margin: 0 auto; }
@media screen { main { padding: 12mm; } }
header { margin-bottom: 7mm; display: grid; grid-template-columns: 1fr auto; column-gap: 6mm; }
header > * { margin: 0; }
header .course, header .who { grid-column: 1 / -1; }
h1 { font-size: 1.35em; }
h2 { font-size: 1.1em; margin: 6mm 0 2mm; }
h4 { font-size: 1em; margin: 2mm 0; }
.says { grid-column: 1 / -1; }
.who { display: grid; grid-template-columns: 2fr 1fr; gap: 8mm; margin-top: 4mm; }
.who span { border-bottom: 0.5pt solid #000; padding-bottom: 1mm; }
p, pre, blockquote, ul, ol { margin: 0 0 1.5mm; }
.keep, .question { break-inside: avoid; page-break-inside: avoid; }
.question { display: grid; grid-template-columns: 8mm 1fr auto; gap: 0 3mm; margin-bottom: 5mm; }
.large .question { grid-template-columns: 14mm 1fr auto; }
.question > p { margin: 0; }
.number { font-variant-numeric: tabular-nums; font-weight: 600; }
.points { white-space: nowrap; font-size: 0.85em; }
.note { font-size: 0.9em; }
pre, code { font-family: 'DejaVu Sans Mono', Consolas, monospace; font-size: 0.9em; white-space: pre-wrap; }
img { max-width: 100%; max-height: 200mm; height: auto; }
.missing { border: 0.5pt dashed #000; padding: 0 1mm; }
.options { list-style: none; margin: 0 0 1.5mm; padding: 0; }
.options li { display: grid; grid-template-columns: auto 1.6em 1fr; gap: 0 1.5mm; break-inside: avoid; }
.options p { margin: 0 0 0.8mm; }
.columns { display: grid; grid-template-columns: 1fr 1fr; gap: 8mm; }
.blank { display: inline-block; border-bottom: 0.5pt solid #000; max-width: 100%; height: 1em; }
.lines > div { border-bottom: 0.4pt solid #888; height: 9mm; }
.large .lines > div { height: 14mm; }
.frame { border: 0.5pt solid #000; }
.display { display: block; text-align: center; margin: 1.5mm 0; }
table { border-collapse: collapse; }
table.content { margin: 1mm 0 2mm; }
.content td, .content th { border: 0.5pt solid #000; padding: 0.8mm 1.5mm; vertical-align: top; }
.content p, .key p { margin: 0; }
.sheet { break-before: page; page-break-before: always; }
.answers { columns: 2; width: 100%; }
.answers th { width: 10mm; text-align: right; padding: 1.2mm 3mm 1.2mm 0; }
.answers td { padding: 1.2mm 0; }
.pick { display: inline-block; min-width: 11mm; }
.write { display: inline-block; width: 50mm; border-bottom: 0.5pt solid #000; height: 1em; }
.key { width: 100%; }
.key th, .key td { border-bottom: 0.4pt solid #888; padding: 1mm 2mm 1mm 0; text-align: left; vertical-align: top; font-weight: 400; }
.key thead th { font-weight: 600; }
.key .title { font-size: 0.85em; }
.key tr { break-inside: avoid; page-break-inside: avoid; }
`;
