import { render } from 'svelte/server';
import type { Receipt } from '$lib/shared/receipt';
import ReceiptAlone from './ReceiptAlone.svelte';

const STYLE = [
  '@page{size:A4;margin:18mm}',
  "body{font:11pt/1.4 Georgia,'Noto Serif',serif;color:#23262b;background:#fff;max-width:174mm;margin:10mm auto}",
  'header{display:flex;gap:6mm;align-items:baseline;border-bottom:2px solid #7b4b2a;margin-bottom:4mm}',
  'header span{margin-left:auto;font-size:9pt;overflow-wrap:anywhere}',
  'h1{font-size:18pt;margin:0 0 1mm}h2{font-size:12pt;margin:5mm 0 1mm}p{margin:0 0 3mm}',
  'table{border-collapse:collapse;width:100%;font-size:9.5pt;margin-bottom:4mm}',
  'th,td{text-align:left;vertical-align:top;border-bottom:1px solid #ddd5c7;padding:1mm 2mm 1mm 0;overflow-wrap:anywhere}',
  '.text-right{text-align:right}.num{font-variant-numeric:tabular-nums}.font-mono{font-family:monospace;font-size:8.5pt}',
  'dl{display:grid;grid-template-columns:28mm 1fr;gap:0 3mm;margin:0 0 4mm}dd{margin:0}',
  'dl[aria-label=Signature]{grid-template-columns:1fr 1fr;gap:0 8mm;margin-top:16mm;break-after:page}',
  'dl[aria-label=Signature] div{border-top:1px solid #23262b;padding-top:1mm;font-size:9.5pt}',
  'ul{list-style:none;padding:0;margin:0 0 3mm;font-size:9.5pt}',
  'li{border-bottom:1px solid #ddd5c7;padding:1mm 0}li.flex>span+span{margin-left:3mm}tr,li{break-inside:avoid}',
  '.text-quiet{color:#5c5f66}.text-brick{color:#9c2f22}.font-semibold{font-weight:600}',
].join('');

/** Without marks for scripts, of which there are none, and with its headings from the first level on. */
const alone = (html: string): string =>
  html
    .replace(/<!--[^>]*-->/gu, '')
    .replace(/(<\/?h)([23])\b/gu, (_, tag: string, level: string) => `${tag}${Number(level) - 1}`);

/** The receipt as one page without anything from elsewhere, set for A4: what the screen and the print say. */
export function receiptPage(receipt: Receipt): string {
  const { head, body } = render(ReceiptAlone, { props: { receipt } });
  return [
    '<!doctype html><html lang="en"><head><meta charset="utf-8">',
    `${alone(head)}<style>${STYLE}</style></head>`,
    `<body>${alone(body)}</body></html>`,
  ].join('\n');
}
