import { cut } from '../../model/cut.ts';
import { imageType } from '../../content/allow.ts';
import type { ContentContext } from '../../content/build.ts';
import type { ContentNode, Hotspot, Picture } from '../../model/content.ts';
import type { Shape } from '../../model/scoring.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { elements, textOf, type XmlElement } from '../../xml/tree.ts';

/** What a reader of interactions is given. */
export interface Build {
  readonly content: (nodes: XmlElement['children']) => readonly ContentNode[];
  readonly context: () => ContentContext;
}

export const groupsOf = (element: XmlElement): string[] =>
  attrOf(element, 'matchGroup')
    .split(/\s+/u)
    .filter((g) => g !== '');

export const imageNode = ({ src, width, height, alt }: Picture): ContentNode => ({
  kind: 'element',
  name: 'img',
  attrs: {
    src,
    alt,
    ...(width === null ? {} : { width: String(width) }),
    ...(height === null ? {} : { height: String(height) }),
  },
  children: [],
});

/** The first object, img or picture of an interaction. */
export function pictureIn(element: XmlElement, build: Build): Picture | null {
  for (const found of elements(element)) {
    if (found.name === 'object') return readPicture(found, attrOf(found, 'data'), build);
    if (found.name === 'img') return readPicture(found, attrOf(found, 'src'), build);
    if (found.name === 'picture') return pictureIn(found, build);
  }
  return null;
}

function readPicture(found: XmlElement, address: string, build: Build): Picture | null {
  if (!address) return null;
  if (/^[a-z][a-z0-9+.-]*:/iu.test(address) || address.startsWith('//')) {
    if (!/^data:image\/(?:png|jpeg|gif|webp);base64,/iu.test(address)) {
      build.context().note('remote-media', 'warning', { address: cut(address, 200) });
      if (!/^(?:https?:)?\/\//iu.test(address)) return null;
    }
    return { src: address, ...pictureFacts(found, address) };
  }
  return { src: build.context().resolve(address, 'file'), ...pictureFacts(found, address) };
}

const pictureFacts = (found: XmlElement, address: string) => ({
  type: attrOf(found, 'type') || imageType(address),
  width: numberAttr(found, 'width'),
  height: numberAttr(found, 'height'),
  alt: attrOf(found, 'alt') || textOf(found).replace(/\s+/gu, ' ').trim(),
});

const SHAPES: ReadonlySet<string> = new Set(['circle', 'rect', 'poly', 'ellipse', 'default']);
export const shapeOf = (element: XmlElement): Shape => {
  const given = attrOf(element, 'shape');
  return SHAPES.has(given) ? (given as Shape) : 'default';
};

export const hotspotsIn = (element: XmlElement, name: string): Hotspot[] =>
  elements(element, name).map((spot): Hotspot => {
    const matchMax = numberAttr(spot, 'matchMax');
    const matchMin = numberAttr(spot, 'matchMin');
    const groups = groupsOf(spot);
    return {
      id: attrOf(spot, 'identifier'),
      shape: shapeOf(spot),
      coords: attrOf(spot, 'coords'),
      label: attrOf(spot, 'hotspotLabel'),
      ...(booleanAttr(spot, 'fixed', false) ? { fixed: true } : {}),
      ...(matchMax !== null ? { matchMax } : {}),
      ...(matchMin ? { matchMin } : {}),
      ...(groups.length > 0 ? { groups } : {}),
    };
  });
