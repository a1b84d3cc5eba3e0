// <choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="1"><simpleChoice
// identifier="A">…</simpleChoice></choiceInteraction>
import { buildContent, type ContentContext } from '../../content/build.ts';
import { tidy } from '../../content/tidy.ts';
import type { Choice, ContentNode, Interaction, Picture } from '../../model/content.ts';
import { groupsOf, hotspotsIn, imageNode, pictureIn, type Build } from './pictures.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, elements, type XmlElement } from '../../xml/tree.ts';

type Reader = (element: XmlElement, build: Build) => Interaction | null;

const promptOf = (element: XmlElement, build: Build): readonly ContentNode[] => {
  const prompt = child(element, 'prompt');
  return prompt ? tidy(build.content(prompt.children)) : [];
};

/** What every interaction asks with: its response, its prompt, and attributes kept for their own standard. */
function asked(element: XmlElement, build: Build) {
  const attrs = keptAttributes(element);
  return {
    responseId: attrOf(element, 'responseIdentifier'),
    prompt: promptOf(element, build),
    ...(Object.keys(attrs).length > 0 ? { attrs } : {}),
  };
}

function keptAttributes(element: XmlElement): Record<string, string> {
  const kept: Record<string, string> = {};
  for (const [key, value] of Object.entries(element.attrs))
    if (
      /^(?:class|label|id|data-[\w-]+|orientation|stepLabel|base|stringIdentifier|countAttempt|required)$/u.test(
        key,
      )
    )
      kept[key] = value;
  return kept;
}

const limits = (element: XmlElement, most: number) => ({
  maxChoices: numberAttr(element, 'maxChoices') ?? most,
  minChoices: numberAttr(element, 'minChoices') ?? 0,
});
const associations = (element: XmlElement, most: number) => ({
  maxAssociations: numberAttr(element, 'maxAssociations') ?? most,
  minAssociations: numberAttr(element, 'minAssociations') ?? 0,
});
const shuffle = (element: XmlElement): boolean => booleanAttr(element, 'shuffle', false);

function readChoice(element: XmlElement, build: Build, content = build.content(element.children)): Choice {
  const template = attrOf(element, 'templateIdentifier');
  const matchMax = numberAttr(element, 'matchMax');
  const matchMin = numberAttr(element, 'matchMin');
  const groups = groupsOf(element);
  return {
    id: attrOf(element, 'identifier'),
    content: tidy(content),
    fixed: booleanAttr(element, 'fixed', false),
    ...(matchMax !== null ? { matchMax } : {}),
    ...(matchMin ? { matchMin } : {}),
    ...(groups.length > 0 ? { groups } : {}),
    ...(template
      ? {
          template: {
            id: template,
            identifier: attrOf(element, 'identifier'),
            show: attrOf(element, 'showHide') !== 'hide',
          },
        }
      : {}),
  };
}

const choicesIn = (element: XmlElement, name: string, build: Build): Choice[] =>
  elements(element, name).map((c) => readChoice(c, build));

/** gapText holds text, gapImg a picture. */
const gapChoices = (element: XmlElement, build: Build): Choice[] =>
  elements(element).flatMap((c) => {
    if (c.name === 'gapText') return [readChoice(c, build)];
    if (c.name !== 'gapImg') return [];
    const picture = pictureIn(c, build);
    return [readChoice(c, build, picture ? [imageNode(picture)] : build.content(c.children))];
  });

/** Interactions that stand on a picture are kept whole where there is none. */
const onPicture =
  (read: (element: XmlElement, build: Build, picture: Picture) => Interaction | null): Reader =>
  (element, build) => {
    const picture = pictureIn(element, build);
    return picture ? read(element, build, picture) : null;
  };

/**
 * What stands in an interaction beside its prompt and its choices: the text of a gap match or of a hottext.
 */
const restOf = (element: XmlElement, taken: ReadonlySet<string>, build: Build): readonly ContentNode[] =>
  tidy(build.content(element.children.filter((n) => n.type === 'text' || !taken.has(n.name))));

const GAP_CHOICES = new Set(['prompt', 'gapText', 'gapImg']);
const PROMPT = new Set(['prompt']);

/**
 * One reader an interaction (QTI 2.1 Assessment Test, Section and Item Information Model, "Interactions").
 * Null: kept whole.
 */
export const INTERACTIONS: Readonly<Record<string, Reader>> = {
  choiceInteraction: (e, b) => ({
    kind: 'choice',
    ...asked(e, b),
    ...limits(e, 1),
    shuffle: shuffle(e),
    choices: choicesIn(e, 'simpleChoice', b),
  }),
  orderInteraction: (e, b) => ({
    kind: 'order',
    ...asked(e, b),
    ...limits(e, 0),
    shuffle: shuffle(e),
    choices: choicesIn(e, 'simpleChoice', b),
  }),
  associateInteraction: (e, b) => ({
    kind: 'associate',
    ...asked(e, b),
    ...associations(e, 1),
    shuffle: shuffle(e),
    choices: choicesIn(e, 'simpleAssociableChoice', b),
  }),
  matchInteraction: (e, b) => {
    const [left, right] = elements(e, 'simpleMatchSet');
    if (!left || !right) return null;
    const set = (s: XmlElement): Choice[] => choicesIn(s, 'simpleAssociableChoice', b);
    return {
      kind: 'match',
      ...asked(e, b),
      ...associations(e, 1),
      shuffle: shuffle(e),
      left: set(left),
      right: set(right),
      rows: null,
    };
  },
  gapMatchInteraction: (e, b) => ({
    kind: 'gapMatch',
    ...asked(e, b),
    shuffle: shuffle(e),
    choices: gapChoices(e, b),
    content: restOf(e, GAP_CHOICES, b),
  }),
  inlineChoiceInteraction: (e, b) => ({
    kind: 'inlineChoice',
    ...asked(e, b),
    shuffle: shuffle(e),
    choices: choicesIn(e, 'inlineChoice', b),
  }),
  textEntryInteraction: (e) => {
    const attrs = keptAttributes(e);
    const patternMask = attrOf(e, 'patternMask');
    return {
      kind: 'textEntry',
      responseId: attrOf(e, 'responseIdentifier'),
      expectedLength: numberAttr(e, 'expectedLength'),
      placeholder: attrOf(e, 'placeholderText') || null,
      ...(patternMask ? { patternMask } : {}),
      ...(Object.keys(attrs).length > 0 ? { attrs } : {}),
    };
  },
  extendedTextInteraction: (e, b) => {
    const maxStrings = numberAttr(e, 'maxStrings');
    const format = attrOf(e, 'format');
    return {
      kind: 'extendedText',
      ...asked(e, b),
      expectedLines: numberAttr(e, 'expectedLines'),
      expectedLength: numberAttr(e, 'expectedLength'),
      ...(maxStrings !== null ? { maxStrings } : {}),
      ...(format ? { format } : {}),
    };
  },
  hottextInteraction: (e, b) => ({
    kind: 'hottext',
    ...asked(e, b),
    ...limits(e, 1),
    content: restOf(e, PROMPT, b),
  }),
  hotspotInteraction: onPicture((e, b, picture) => ({
    kind: 'hotspot',
    ...asked(e, b),
    ...limits(e, 1),
    picture,
    hotspots: hotspotsIn(e, 'hotspotChoice'),
  })),
  graphicOrderInteraction: onPicture((e, b, picture) => ({
    kind: 'graphicOrder',
    ...asked(e, b),
    ...limits(e, 0),
    picture,
    hotspots: hotspotsIn(e, 'hotspotChoice'),
  })),
  graphicAssociateInteraction: onPicture((e, b, picture) => ({
    kind: 'graphicAssociate',
    ...asked(e, b),
    ...associations(e, 1),
    picture,
    hotspots: hotspotsIn(e, 'associableHotspot'),
  })),
  graphicGapMatchInteraction: onPicture((e, b, picture) => ({
    kind: 'graphicGapMatch',
    ...asked(e, b),
    picture,
    choices: gapChoices(e, b),
    hotspots: hotspotsIn(e, 'associableHotspot'),
  })),
  selectPointInteraction: onPicture((e, b, picture) => ({
    kind: 'selectPoint',
    ...asked(e, b),
    ...limits(e, 1),
    picture,
  })),
  sliderInteraction: (e, b) => ({
    kind: 'slider',
    ...asked(e, b),
    lowerBound: numberAttr(e, 'lowerBound') ?? 0,
    upperBound: numberAttr(e, 'upperBound') ?? 100,
    step: numberAttr(e, 'step'),
    reverse: booleanAttr(e, 'reverse', false),
    vertical: attrOf(e, 'orientation') === 'vertical',
  }),
  uploadInteraction: (e, b) => ({ kind: 'upload', ...asked(e, b), type: attrOf(e, 'type') }),
  drawingInteraction: onPicture((e, b, picture) => ({ kind: 'drawing', ...asked(e, b), picture })),
  mediaInteraction: (e, b) => ({
    kind: 'media',
    ...asked(e, b),
    autostart: booleanAttr(e, 'autostart', false),
    minPlays: numberAttr(e, 'minPlays') ?? 0,
    maxPlays: numberAttr(e, 'maxPlays') ?? 0,
    loop: booleanAttr(e, 'loop', false),
    media: restOf(e, PROMPT, b),
  }),
  endAttemptInteraction: (e) => {
    const attrs = keptAttributes(e);
    return {
      kind: 'endAttempt',
      responseId: attrOf(e, 'responseIdentifier'),
      title: attrOf(e, 'title'),
      ...(Object.keys(attrs).length > 0 ? { attrs } : {}),
    };
  },
};

/** A stage holds a picture and one or more interactions that place an object on it. */
export function readStage(element: XmlElement, build: Build): Interaction[] | null {
  const stage = pictureIn(element, build);
  if (!stage) return null;
  const placed = elements(element, 'positionObjectInteraction').map((e): Interaction | null => {
    const picture = pictureIn(e, build);
    return picture && { kind: 'positionObject', ...asked(e, build), ...limits(e, 1), picture, stage };
  });
  return placed.every((p) => p !== null) && placed.length > 0 ? placed : null;
}

/** All context-free child buildings go through the allow-list. */
export const builder = (context: () => ContentContext): Build => ({
  context,
  content: (nodes) => buildContent(nodes, context()),
});
