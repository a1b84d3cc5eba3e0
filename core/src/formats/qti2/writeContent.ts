import type { ContentNode } from '../../model/content.ts';
import { BLOCK_ELEMENTS, URL_ATTRIBUTES } from '../../content/allow.ts';
import { encodePath, relativePath } from '../../intake/paths.ts';
import { escapeText, keepBreaks, tag } from '../../xml/write.ts';
import { MATHML_NAMESPACE } from './names.ts';

export interface ContentWriter {
  /** The document's own path, from which addresses are relative. */
  readonly path: string;
  /** Package paths of files as they are written; null for an address that is no file of the package. */
  readonly fileAt: (path: string) => string | null;
}

/** Elements QTI 2.1 does not have, and what shows the same. */
const STAND_INS: Readonly<Record<string, { name: string; style?: string }>> = {
  u: { name: 'span', style: 'text-decoration: underline' }, ins: { name: 'span', style: 'text-decoration: underline' },
  s: { name: 'span', style: 'text-decoration: line-through' }, strike: { name: 'span', style: 'text-decoration: line-through' },
  del: { name: 'span', style: 'text-decoration: line-through' }, mark: { name: 'span' }, font: { name: 'span' }, time: { name: 'span' },
  bdi: { name: 'span' }, bdo: { name: 'span' }, ruby: { name: 'span' }, rt: { name: 'span' }, rp: { name: 'span' },
  center: { name: 'div', style: 'text-align: center' }, section: { name: 'div' }, figure: { name: 'div' }, figcaption: { name: 'div' },
}; // prettier-ignore
const MEDIA_TYPES: Readonly<Record<string, string>> = { audio: 'audio/mpeg', video: 'video/mp4' };

/** Content as QTI 2.1 XML. */
export function writeContent(nodes: readonly ContentNode[], writer: ContentWriter): string {
  return nodes.map((node) => writeNode(node, writer)).join('');
}

function writeNode(node: ContentNode, writer: ContentWriter): string {
  switch (node.kind) {
    case 'text':
      return escapeText(node.text);
    case 'element':
      return writeElement(node.name, node.attrs, node.children, writer);
    case 'math':
      return tag('math', { xmlns: MATHML_NAMESPACE, ...node.attrs }, writeContent(node.children, writer));
    case 'feedback':
      return tag(
        node.block ? 'feedbackBlock' : 'feedbackInline',
        {
          outcomeIdentifier: node.outcome,
          identifier: node.identifier,
          showHide: node.show ? 'show' : 'hide',
        },
        writeContent(node.children, writer),
      );
    case 'rubricBlock':
      return tag('rubricBlock', { view: node.view }, asBlocks(node.children, writer));
    case 'opaque':
      return node.standard === 'qti2' ? keepBreaks(node.xml) : '';
    case 'choice':
      return tag(
        'choiceInteraction',
        {
          responseIdentifier: node.responseId,
          shuffle: node.shuffle,
          maxChoices: node.maxChoices,
          minChoices: node.minChoices || null,
        },
        [
          promptOf(node.prompt, writer),
          ...node.choices.map((c) =>
            tag(
              'simpleChoice',
              { identifier: c.id, fixed: c.fixed ? true : null },
              writeContent(c.content, writer),
            ),
          ),
        ],
      );
    case 'textEntry':
      return tag('textEntryInteraction', {
        responseIdentifier: node.responseId,
        expectedLength: node.expectedLength,
        placeholderText: node.placeholder,
      });
    case 'extendedText':
      return tag(
        'extendedTextInteraction',
        {
          responseIdentifier: node.responseId,
          expectedLength: node.expectedLength,
          expectedLines: node.expectedLines,
        },
        promptOf(node.prompt, writer),
      );
    case 'custom':
      return node.standard === 'qti2' ? keepBreaks(node.xml) : asBlocks(node.fallback, writer);
  }
}

const promptOf = (prompt: readonly ContentNode[], writer: ContentWriter): string =>
  prompt.length > 0 ? tag('prompt', {}, writeContent(prompt, writer)) : '';

/** A rubric block holds blocks; a run of inline content becomes a paragraph. */
function asBlocks(nodes: readonly ContentNode[], writer: ContentWriter): string {
  const inline = nodes.every(
    (n) => n.kind === 'text' || (n.kind === 'element' && !BLOCK_ELEMENTS.has(n.name)),
  );
  return inline && nodes.length > 0 ? tag('p', {}, writeContent(nodes, writer)) : writeContent(nodes, writer);
}

function writeElement(
  name: string,
  given: Readonly<Record<string, string>>,
  children: readonly ContentNode[],
  writer: ContentWriter,
): string {
  const attrs: Record<string, string> = {};
  for (const [key, value] of Object.entries(given))
    attrs[key] = URL_ATTRIBUTES.has(key) ? addressOf(value, writer) : value;
  if (name === 'audio' || name === 'video') {
    return tag('object', {
      data: attrs['src'],
      type: MEDIA_TYPES[name],
      width: attrs['width'],
      height: attrs['height'],
    });
  }
  const standIn = STAND_INS[name];
  if (!standIn) return tag(name, attrs, writeContent(children, writer));
  if (standIn.style) attrs['style'] = attrs['style'] ? `${attrs['style']}; ${standIn.style}` : standIn.style;
  if (attrs['color']) attrs['style'] = `color: ${attrs['color']}`;
  delete attrs['color'];
  delete attrs['size'];
  return tag(standIn.name, attrs, writeContent(children, writer));
}

function addressOf(value: string, writer: ContentWriter): string {
  const target = writer.fileAt(value);
  return target === null ? value : encodePath(relativePath(writer.path, target));
}
