import { DOMParser as Reader, DOMSerializer, type Node } from 'prosemirror-model';
import { schema } from './schema';

/** Texts between the documents of core (HTML of the allow-list with slots) and the editor's own. */

/** Kinds of slots that stand within a line; others stand on lines of their own. */
const INLINE: ReadonlySet<string> = new Set([
  'textEntry',
  'inlineChoice',
  'gap',
  'hottextChoice',
  'printedVariable',
  'endAttempt',
]);
export const isInlineSlot = (kind: string): boolean => INLINE.has(kind);

/** @param kinds what stands in each slot */
export function readText(html: string, kinds: readonly string[]): Node {
  const page = new DOMParser().parseFromString(`<body>${html}</body>`, 'text/html');
  for (const span of page.querySelectorAll('span[data-slot]')) {
    if (INLINE.has(kinds[Number((span as HTMLElement).dataset['slot'])] ?? '')) continue;
    const block = page.createElement('div');
    block.setAttribute('data-slot', (span as HTMLElement).dataset['slot'] ?? '');
    span.replaceWith(block);
  }
  return Reader.fromSchema(schema).parse(page.body);
}

/** The document as HTML again: atoms as they came, and a lone text without a paragraph as it stood. */
export function writeText(doc: Node): string {
  const box = document.createElement('div');
  box.append(DOMSerializer.fromSchema(schema).serializeFragment(doc.content, { document }));
  const kept = atoms(doc, 'kept', 'html');
  const maths = atoms(doc, 'math', 'markup');
  for (const [at, place] of [...box.querySelectorAll('[data-kept]')].entries())
    place.outerHTML = kept[at] ?? '';
  for (const [at, place] of [...box.querySelectorAll('[data-math]')].entries())
    place.outerHTML = maths[at] ?? '';
  for (const slot of box.querySelectorAll('div[data-slot]')) {
    const span = document.createElement('span');
    span.setAttribute('data-slot', (slot as HTMLElement).dataset['slot'] ?? '');
    slot.replaceWith(span);
  }
  const texts: Node[] = [];
  doc.forEach((node) => void (node.type.name === 'slot_block' || texts.push(node)));
  const [only] = texts;
  if (texts.length === 1 && only?.type.name === 'paragraph' && only.attrs['bare'] === true) {
    const p = [...box.children].find((c) => c.tagName === 'P');
    p?.replaceWith(...p.childNodes);
  }
  return box.innerHTML;
}

function atoms(doc: Node, type: string, attribute: string): string[] {
  const found: string[] = [];
  doc.descendants((node) => {
    if (node.type.name === type) found.push(String(node.attrs[attribute]));
  });
  return found;
}
