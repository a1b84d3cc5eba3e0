// <itemBody><p>…</p><choiceInteraction …/><feedbackBlock …/><printedVariable identifier="A"/></itemBody>
import { type ContentContext } from '../../content/build.ts';
import { tidy } from '../../content/tidy.ts';
import type { ContentNode, Interaction, Standard } from '../../model/content.ts';
import { attrOf } from '../../xml/attrs.ts';
import { child, descendants, rawXml, textOf, type XmlDocument, type XmlElement } from '../../xml/tree.ts';
import { builder, INTERACTIONS, readStage } from './interactions.ts';
import { type Build } from './pictures.ts';

type SpecialReader = (element: XmlElement, build: Build) => readonly ContentNode[] | null;

const inside = (element: XmlElement, build: Build, block = true): readonly ContentNode[] =>
  tidy(build.content(element.children), block);

/** QTI's own elements in content that are no interactions. */
const SPECIAL: Readonly<Record<string, SpecialReader>> = {
  feedbackBlock: (e, b) => [feedback(e, b, true)],
  feedbackInline: (e, b) => [feedback(e, b, false)],
  templateBlock: (e, b) => [template(e, b, true)],
  templateInline: (e, b) => [template(e, b, false)],
  rubricBlock: (e, b) => [
    { kind: 'rubricBlock', view: attrOf(e, 'view') || 'candidate', children: inside(e, b) },
  ],
  infoControl: (e, b) => [{ kind: 'infoControl', title: attrOf(e, 'title'), children: inside(e, b) }],
  printedVariable: (e) => {
    const { identifier: _id, ...attrs } = e.attrs;
    return [{ kind: 'printedVariable', id: attrOf(e, 'identifier'), attrs }];
  },
  gap: (e) => [
    {
      kind: 'gap',
      id: attrOf(e, 'identifier'),
      groups: attrOf(e, 'matchGroup')
        .split(/\s+/u)
        .filter((g) => g !== ''),
    },
  ],
  hottext: (e, b) => [{ kind: 'hottextChoice', id: attrOf(e, 'identifier'), content: inside(e, b, false) }],
  contentBody: (e, b) => b.content(e.children),
  stimulusBody: (e, b) => b.content(e.children),
  object: (e, b) => objectMedia(e, b),
};

const feedback = (e: XmlElement, b: Build, block: boolean): ContentNode => ({
  kind: 'feedback',
  block,
  outcome: attrOf(e, 'outcomeIdentifier'),
  identifier: attrOf(e, 'identifier'),
  show: attrOf(e, 'showHide') !== 'hide',
  children: inside(e, b, block),
});

const template = (e: XmlElement, b: Build, block: boolean): ContentNode => ({
  kind: 'template',
  block,
  template: attrOf(e, 'templateIdentifier'),
  identifier: attrOf(e, 'identifier'),
  show: attrOf(e, 'showHide') !== 'hide',
  children: inside(e, b, block),
});

/** Reads QTI's own elements inside content; everything else is left to the allow-list. */
export function bodySpecial(
  document: XmlDocument,
  standard: Standard,
  content: () => ContentContext,
): (element: XmlElement) => readonly ContentNode[] | null {
  const build = builder(content);
  return (element) => {
    const { name } = element;
    const interaction = Object.hasOwn(INTERACTIONS, name) ? INTERACTIONS[name] : undefined;
    if (interaction) {
      const read = interaction(element, build);
      if (read) return [read];
    }
    if (name === 'positionObjectStage') {
      const stage = readStage(element, build);
      if (stage) return stage;
    }
    if (Object.hasOwn(SPECIAL, name)) return SPECIAL[name]!(element, build);
    if (/Interaction$/u.test(name) || name === 'positionObjectStage')
      return [customInteraction(element, document, standard, build)];
    if (name === 'include' || name === 'statemachine') {
      content().note('opaque-content', 'warning', { what: `<${name}>` });
      return [{ kind: 'opaque', standard, name, xml: rawXml(document, element) }];
    }
    return null;
  };
}

/** QTI 2 shows pictures, sound and film by object; anything else in one is active content. */
function objectMedia(element: XmlElement, build: Build): readonly ContentNode[] | null {
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
  const attrs: Record<string, string> = { src: build.context().resolve(data, 'file') };
  for (const key of ['width', 'height']) if (attrOf(element, key)) attrs[key] = attrOf(element, key);
  if (name === 'img') attrs['alt'] = textOf(element).replace(/\s+/gu, ' ').trim();
  else attrs['controls'] = 'controls';
  return [{ kind: 'element', name, attrs, children: [] }];
}

function customInteraction(
  element: XmlElement,
  document: XmlDocument,
  standard: Standard,
  build: Build,
): Interaction {
  const context = build.context();
  context.note('opaque-content', 'warning', { what: `<${element.name}>` });
  // Files it names are part of the item all the same.
  for (const media of [
    ...descendants(element, 'object'),
    ...descendants(element, 'img'),
    ...descendants(element, 'script'),
  ]) {
    const address = attrOf(media, 'data') || attrOf(media, 'src');
    if (address && !/^[a-z][a-z0-9+.-]*:/iu.test(address)) context.resolve(address, 'file');
  }
  const prompt = child(element, 'prompt');
  return {
    kind: 'custom',
    responseId: attrOf(element, 'responseIdentifier') || null,
    standard,
    name: element.name,
    xml: rawXml(document, element),
    fallback: prompt ? tidy(build.content(prompt.children)) : [],
  };
}
