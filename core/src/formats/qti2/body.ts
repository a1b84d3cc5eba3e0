// <itemBody><p>…</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="1">…</choiceInteraction></itemBody>
import { buildContent, type ContentContext } from '../../content/build.ts';
import { tidy } from '../../content/tidy.ts';
import type { ContentNode, Interaction } from '../../model/content.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, elements, rawXml, textOf, type XmlDocument, type XmlElement } from '../../xml/tree.ts';

type Build = (nodes: XmlElement['children']) => ContentNode[];
type InteractionReader = (element: XmlElement, build: Build) => Interaction | null;

/** One reader an interaction; null means that this one cannot be read into its kind and is kept whole. */
const INTERACTIONS: Readonly<Record<string, InteractionReader>> = {
  choiceInteraction: (element, build) => ({
    kind: 'choice',
    responseId: attrOf(element, 'responseIdentifier'),
    shuffle: booleanAttr(element, 'shuffle', false),
    maxChoices: numberAttr(element, 'maxChoices') ?? 1,
    minChoices: numberAttr(element, 'minChoices') ?? 0,
    prompt: promptOf(element, build),
    choices: elements(element, 'simpleChoice').map((choice) => ({
      id: attrOf(choice, 'identifier'),
      content: tidy(build(choice.children)),
      fixed: booleanAttr(choice, 'fixed', false),
    })),
  }),
  textEntryInteraction: (element) => ({
    kind: 'textEntry',
    responseId: attrOf(element, 'responseIdentifier'),
    expectedLength: numberAttr(element, 'expectedLength'),
    placeholder: attrOf(element, 'placeholderText') || null,
  }),
  extendedTextInteraction: (element, build) => ({
    kind: 'extendedText',
    responseId: attrOf(element, 'responseIdentifier'),
    prompt: promptOf(element, build),
    expectedLines: numberAttr(element, 'expectedLines'),
    expectedLength: numberAttr(element, 'expectedLength'),
  }),
};

const promptOf = (element: XmlElement, build: Build): ContentNode[] => {
  const prompt = child(element, 'prompt');
  return prompt ? tidy(build(prompt.children)) : [];
};

/** Reads QTI 2's own elements inside content; everything else is left to the allow-list. */
export function bodySpecial(
  document: XmlDocument,
  content: () => ContentContext,
): (element: XmlElement) => readonly ContentNode[] | null {
  const build: Build = (nodes) => buildContent(nodes, content());
  return (element) => {
    const { name } = element;
    const interaction = Object.hasOwn(INTERACTIONS, name) ? INTERACTIONS[name] : undefined;
    if (interaction) {
      const read = interaction(element, build);
      if (read) return [read];
    }
    if (/Interaction$/u.test(name)) return [customInteraction(element, document, build, content())];
    switch (name) {
      case 'feedbackBlock':
      case 'feedbackInline':
        return [
          {
            kind: 'feedback',
            block: name === 'feedbackBlock',
            outcome: attrOf(element, 'outcomeIdentifier'),
            identifier: attrOf(element, 'identifier'),
            show: attrOf(element, 'showHide') !== 'hide',
            children: tidy(build(element.children), name === 'feedbackBlock'),
          },
        ];
      case 'object': {
        const media = objectMedia(element, content());
        return media ? [media] : null;
      }
      case 'rubricBlock':
        return [
          {
            kind: 'rubricBlock',
            view: attrOf(element, 'view') || 'candidate',
            children: tidy(build(element.children)),
          },
        ];
      case 'printedVariable':
      case 'templateInline':
      case 'templateBlock':
      case 'infoControl':
      case 'include':
        content().note('opaque-content', 'warning', { what: `<${name}>` });
        return [{ kind: 'opaque', standard: 'qti2', name, xml: rawXml(document, element) }];
      default:
        return null;
    }
  };
}

/** QTI 2 shows pictures, sound and film by object; anything else in one is active content. */
function objectMedia(element: XmlElement, content: ContentContext): ContentNode | null {
  const type = attrOf(element, 'type').toLowerCase();
  const data = attrOf(element, 'data');
  const name =
    type.startsWith('image/') && !type.includes('svg')
      ? 'img'
      : type.startsWith('audio/')
        ? 'audio'
        : type.startsWith('video/')
          ? 'video'
          : null;
  if (!name || !data || /^[a-z][a-z0-9+.-]*:/iu.test(data)) return null;
  const attrs: Record<string, string> = { src: content.resolve(data, 'file') };
  for (const key of ['width', 'height']) if (attrOf(element, key)) attrs[key] = attrOf(element, key);
  if (name === 'img') attrs['alt'] = textOf(element).replace(/\s+/gu, ' ').trim();
  else attrs['controls'] = 'controls';
  return { kind: 'element', name, attrs, children: [] };
}

function customInteraction(
  element: XmlElement,
  document: XmlDocument,
  build: Build,
  content: ContentContext,
): Interaction {
  content.note('opaque-content', 'warning', { what: `<${element.name}>` });
  return {
    kind: 'custom',
    responseId: attrOf(element, 'responseIdentifier') || null,
    standard: 'qti2',
    name: element.name,
    xml: rawXml(document, element),
    fallback: promptOf(element, build),
  };
}
