import { harmlessXml, writtenAddress } from '../../content/address.ts';
import { imageType, URL_ATTRIBUTES } from '../../content/allow.ts';
import { BLOCK_ELEMENTS } from '../../model/blocks.ts';
import { isBlock } from '../../content/tidy.ts';
import type { Choice, ContentNode, Hotspot, KeptAttributes, Picture, Standard } from '../../model/content.ts';
import { encodePath, relativePath } from '../../intake/paths.ts';
import { escapeText, keepBreaks, tag as html, type Attributes } from '../../xml/write.ts';
import type { Markup } from './markup.ts';
import { MATHML_NAMESPACE } from './names.ts';

export interface ContentWriter {
  readonly markup: Markup;
  /** Where the document stands: addresses are written relative to it. */
  readonly path: string;
  /** Package paths of files as they are written; null for an address that is no file of the package. */
  readonly fileAt: (path: string) => string | null;
}

/** Whose kept XML can go into this dialect as it is. */
export const standardOf = (markup: Markup): Standard => (markup.dialect.hyphenated ? 'qti3' : 'qti2');

/** Elements QTI 2 does not have, and what shows the same. */
const STAND_INS: Readonly<Record<string, { name: string; style?: string }>> = {
  u: { name: 'span', style: 'text-decoration: underline' },
  ins: { name: 'span', style: 'text-decoration: underline' },
  s: { name: 'span', style: 'text-decoration: line-through' },
  strike: { name: 'span', style: 'text-decoration: line-through' },
  del: { name: 'span', style: 'text-decoration: line-through' },
  mark: { name: 'span' },
  font: { name: 'span' },
  time: { name: 'span' },
  bdi: { name: 'span' },
  bdo: { name: 'span' },
  ruby: { name: 'span' },
  rt: { name: 'span' },
  rp: { name: 'span' },
  center: { name: 'div', style: 'text-align: center' },
  section: { name: 'div' },
  article: { name: 'div' },
  aside: { name: 'div' },
  details: { name: 'div' },
  footer: { name: 'div' },
  header: { name: 'div' },
  hgroup: { name: 'div' },
  main: { name: 'div' },
  nav: { name: 'div' },
  summary: { name: 'div' },
  figure: { name: 'div' },
  figcaption: { name: 'div' },
};
const MEDIA_TYPES: Readonly<Record<string, string>> = { audio: 'audio/mpeg', video: 'video/mp4' };

/** Content as QTI XML. */
export function writeContent(nodes: readonly ContentNode[], writer: ContentWriter): string {
  return nodes.map((node) => writeNode(node, writer)).join('');
}

function writeNode(node: ContentNode, writer: ContentWriter): string {
  const { tag } = writer.markup;
  const inner = (nodes: readonly ContentNode[]): string => writeContent(nodes, writer);
  const showHide = (show: boolean): string => (show ? 'show' : 'hide');
  switch (node.kind) {
    case 'text':
      return escapeText(node.text);
    case 'element':
      return writeElement(node.name, node.attrs, node.children, writer);
    case 'math':
      return html('math', { xmlns: MATHML_NAMESPACE, ...node.attrs }, inner(node.children));
    case 'feedback':
      return tag(
        node.block ? 'feedbackBlock' : 'feedbackInline',
        { outcomeIdentifier: node.outcome, identifier: node.identifier, showHide: showHide(node.show) },
        wrapped(inner(node.children), node.block, writer),
      );
    case 'template':
      return tag(
        node.block ? 'templateBlock' : 'templateInline',
        { templateIdentifier: node.template, identifier: node.identifier, showHide: showHide(node.show) },
        wrapped(inner(node.children), node.block, writer),
      );
    case 'rubricBlock':
      return tag('rubricBlock', { view: node.view }, wrapped(asBlocks(node.children, writer), true, writer));
    case 'infoControl':
      return tag('infoControl', { title: node.title }, inner(node.children));
    case 'printedVariable':
      return tag('printedVariable', { identifier: node.id, ...node.attrs });
    case 'gap':
      return tag('gap', { identifier: node.id, matchGroup: node.groups.join(' ') || null });
    case 'hottextChoice':
      return tag('hottext', { identifier: node.id }, inner(node.content));
    case 'opaque':
      return node.standard === standardOf(writer.markup) ? keepBreaks(harmlessXml(node.xml)) : '';
    case 'custom':
      return node.standard === standardOf(writer.markup)
        ? keepBreaks(harmlessXml(node.xml))
        : asBlocks(node.fallback, writer);
    default:
      return writeInteraction(node, writer);
  }
}

type Written = Exclude<
  ContentNode,
  {
    kind:
      | 'text'
      | 'element'
      | 'math'
      | 'feedback'
      | 'template'
      | 'rubricBlock'
      | 'infoControl'
      | 'printedVariable'
      | 'gap'
      | 'hottextChoice'
      | 'opaque'
      | 'custom';
  }
>;

function writeInteraction(node: Written, writer: ContentWriter): string {
  const { tag } = writer.markup;
  const inner = (nodes: readonly ContentNode[]): string => writeContent(nodes, writer);
  const prompt = (nodes: readonly ContentNode[]): string =>
    nodes.length > 0 ? tag('prompt', {}, inner(nodes)) : '';
  const { attrs = {} } = node as { attrs?: KeptAttributes };
  const base = { responseIdentifier: node.responseId };
  const choice = (name: string, c: Choice): string =>
    tag(
      name,
      {
        identifier: c.id,
        fixed: c.fixed ? true : null,
        matchMax: c.matchMax ?? (name === 'simpleAssociableChoice' || name.startsWith('gap') ? 1 : null),
        matchMin: c.matchMin ?? null,
        matchGroup: c.groups?.join(' ') ?? null,
        templateIdentifier: c.template?.id ?? null,
        showHide: c.template ? (c.template.show ? 'show' : 'hide') : null,
      },
      name === 'gapImg' ? pictureOf(c.content, writer) : inner(c.content),
    );
  const gapChoice = (c: Choice): string =>
    choice(c.content.length === 1 && isImage(c.content[0]!) ? 'gapImg' : 'gapText', c);
  const spot = (name: string, h: Hotspot): string =>
    tag(name, {
      identifier: h.id,
      shape: h.shape,
      coords: h.coords,
      hotspotLabel: h.label || null,
      fixed: h.fixed ? true : null,
      matchMax: h.matchMax ?? (name === 'associableHotspot' ? 1 : null),
      matchMin: h.matchMin ?? null,
      matchGroup: h.groups?.join(' ') ?? null,
    });
  const picture = (p: Picture): string => writePicture(p, writer);
  const shuffle = 'shuffle' in node ? { shuffle: node.shuffle } : {};
  const few = (n: number): number | null => n || null;
  switch (node.kind) {
    case 'choice':
      return tag(
        'choiceInteraction',
        { ...base, ...shuffle, maxChoices: node.maxChoices, minChoices: few(node.minChoices), ...attrs },
        [prompt(node.prompt), ...node.choices.map((c) => choice('simpleChoice', c))],
      );
    case 'order':
      return tag(
        'orderInteraction',
        {
          ...base,
          ...shuffle,
          maxChoices: few(node.maxChoices),
          minChoices: few(node.minChoices),
          ...attrs,
        },
        [prompt(node.prompt), ...node.choices.map((c) => choice('simpleChoice', c))],
      );
    case 'associate':
      return tag(
        'associateInteraction',
        {
          ...base,
          ...shuffle,
          maxAssociations: node.maxAssociations,
          minAssociations: few(node.minAssociations),
          ...attrs,
        },
        [prompt(node.prompt), ...node.choices.map((c) => choice('simpleAssociableChoice', c))],
      );
    case 'match':
      return tag(
        'matchInteraction',
        {
          ...base,
          ...shuffle,
          maxAssociations: node.maxAssociations,
          minAssociations: few(node.minAssociations),
          ...attrs,
        },
        [
          prompt(node.prompt),
          ...[node.left, node.right].map((set) =>
            tag(
              'simpleMatchSet',
              {},
              set.map((c) => choice('simpleAssociableChoice', c)),
            ),
          ),
        ],
      );
    case 'gapMatch':
      return tag('gapMatchInteraction', { ...base, ...shuffle, ...attrs }, [
        prompt(node.prompt),
        ...node.choices.map(gapChoice),
        asBlocks(node.content, writer),
      ]);
    case 'inlineChoice':
      return tag(
        'inlineChoiceInteraction',
        { ...base, ...shuffle, ...attrs },
        node.choices.map((c) => choice('inlineChoice', c)),
      );
    case 'textEntry':
      return tag('textEntryInteraction', {
        ...base,
        expectedLength: node.expectedLength,
        patternMask: node.patternMask ?? null,
        placeholderText: node.placeholder,
        ...attrs,
      });
    case 'extendedText':
      return tag(
        'extendedTextInteraction',
        {
          ...base,
          expectedLength: node.expectedLength,
          expectedLines: node.expectedLines,
          maxStrings: node.maxStrings ?? null,
          format: node.format ?? null,
          ...attrs,
        },
        prompt(node.prompt),
      );
    case 'hottext':
      return tag(
        'hottextInteraction',
        { ...base, maxChoices: node.maxChoices, minChoices: few(node.minChoices), ...attrs },
        [prompt(node.prompt), asBlocks(node.content, writer)],
      );
    case 'hotspot':
    case 'graphicOrder':
      return tag(
        `${node.kind}Interaction`,
        {
          ...base,
          maxChoices: node.kind === 'hotspot' ? node.maxChoices : few(node.maxChoices),
          minChoices: few(node.minChoices),
          ...attrs,
        },
        [prompt(node.prompt), picture(node.picture), ...node.hotspots.map((h) => spot('hotspotChoice', h))],
      );
    case 'graphicAssociate':
      return tag(
        'graphicAssociateInteraction',
        {
          ...base,
          maxAssociations: node.maxAssociations,
          minAssociations: few(node.minAssociations),
          ...attrs,
        },
        [
          prompt(node.prompt),
          picture(node.picture),
          ...node.hotspots.map((h) => spot('associableHotspot', h)),
        ],
      );
    case 'graphicGapMatch':
      return tag('graphicGapMatchInteraction', { ...base, ...attrs }, [
        prompt(node.prompt),
        picture(node.picture),
        ...node.choices.map(gapChoice),
        ...node.hotspots.map((h) => spot('associableHotspot', h)),
      ]);
    case 'selectPoint':
      return tag(
        'selectPointInteraction',
        { ...base, maxChoices: node.maxChoices, minChoices: few(node.minChoices), ...attrs },
        [prompt(node.prompt), picture(node.picture)],
      );
    case 'positionObject':
      return tag('positionObjectStage', {}, [
        picture(node.stage),
        tag(
          'positionObjectInteraction',
          { ...base, maxChoices: node.maxChoices, minChoices: few(node.minChoices), ...attrs },
          picture(node.picture),
        ),
      ]);
    case 'slider':
      return tag(
        'sliderInteraction',
        {
          ...base,
          lowerBound: node.lowerBound,
          upperBound: node.upperBound,
          step: node.step,
          reverse: node.reverse ? true : null,
          orientation: node.vertical ? 'vertical' : null,
          ...without(attrs, 'orientation'),
        },
        prompt(node.prompt),
      );
    case 'upload':
      return tag('uploadInteraction', { ...base, type: node.type || null, ...attrs }, prompt(node.prompt));
    case 'drawing':
      return tag('drawingInteraction', { ...base, ...attrs }, [prompt(node.prompt), picture(node.picture)]);
    case 'media':
      return tag(
        'mediaInteraction',
        {
          ...base,
          autostart: node.autostart,
          minPlays: few(node.minPlays),
          maxPlays: few(node.maxPlays),
          loop: node.loop ? true : null,
          ...attrs,
        },
        [prompt(node.prompt), inner(node.media)],
      );
    case 'endAttempt':
      return tag('endAttemptInteraction', { ...base, title: node.title, ...attrs });
  }
}

const without = (attrs: KeptAttributes, name: string): Attributes => {
  const { [name]: _gone, ...rest } = attrs;
  return rest;
};

const isImage = (node: ContentNode): boolean => node.kind === 'element' && node.name === 'img';

/** QTI 3 keeps what is shown on a condition, and rubrics, in a content body. */
const wrapped = (content: string, block: boolean, { markup }: ContentWriter): string =>
  block && markup.dialect.hyphenated && content ? markup.tag('contentBody', {}, content) : content;

/** A run of inline content becomes a paragraph where only blocks may stand. */
export function asBlocks(nodes: readonly ContentNode[], writer: ContentWriter): string {
  const inline = nodes.every((n) => !isBlock(n) || (n.kind === 'element' && !BLOCK_ELEMENTS.has(n.name)));
  return inline && nodes.length > 0
    ? html('p', {}, writeContent(nodes, writer))
    : writeContent(nodes, writer);
}

/** A picture of an interaction: img in QTI 3, object in QTI 2. */
function writePicture(picture: Picture, writer: ContentWriter): string {
  const { width, height, alt } = picture;
  const address = addressOf(picture.src, writer);
  if (writer.markup.dialect.hyphenated) return html('img', { src: address, alt, width, height });
  const type = picture.type || imageType(picture.src);
  return html('object', { data: address, type, width, height }, escapeText(alt));
}

function pictureOf(content: readonly ContentNode[], writer: ContentWriter): string {
  const [image] = content;
  if (image?.kind !== 'element') return '';
  const size = (key: string): number | null => (image.attrs[key] ? Number(image.attrs[key]) : null);
  return writePicture(
    {
      src: image.attrs['src'] ?? '',
      type: '',
      width: size('width'),
      height: size('height'),
      alt: image.attrs['alt'] ?? '',
    },
    writer,
  );
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
  const inner = (): string => writeContent(children, writer);
  if (writer.markup.dialect.hyphenated) return html(name, attrs, inner());
  if (name === 'audio' || name === 'video') {
    return html('object', {
      data: attrs['src'],
      type: MEDIA_TYPES[name],
      width: attrs['width'],
      height: attrs['height'],
    });
  }
  const standIn = Object.hasOwn(STAND_INS, name) ? STAND_INS[name] : undefined;
  if (!standIn) return html(name, attrs, inner());
  if (standIn.style) attrs['style'] = attrs['style'] ? `${attrs['style']}; ${standIn.style}` : standIn.style;
  if (attrs['color']) attrs['style'] = `color: ${attrs['color']}`;
  delete attrs['color'];
  delete attrs['size'];
  return html(standIn.name, attrs, inner());
}

function addressOf(value: string, writer: ContentWriter): string {
  const target = writer.fileAt(value);
  if (target !== null) return encodePath(relativePath(writer.path, target));
  return writtenAddress(value);
}
