import { child, descendants, elements, type XmlElement } from '../../xml/tree.ts';
import type { LevelFormat } from '../numbering.ts';
import { PLAIN_LOOK, type Look } from '../block.ts';
import { attr } from '../parts.ts';

/** Styles and lists of a word-processor file: what a paragraph gets from elsewhere (ECMA-376, 17.7 and 17.9). */

interface ParagraphStyle {
  readonly look: Partial<Look>;
  readonly heading: number;
  readonly numId: string | null;
  readonly level: number;
}
const NO_STYLE: ParagraphStyle = { look: {}, heading: 0, numId: null, level: 0 };

/** On, unless it says otherwise (17.17.4 ST_OnOff). */
const isOn = (element: XmlElement): boolean => !/^(?:0|false|off|none)$/iu.test(attr(element, 'val') ?? '');

/** What run properties say of the look; only what they say. */
export function lookIn(properties: XmlElement | null): Partial<Look> {
  const out: { -readonly [K in keyof Look]?: Look[K] } = {};
  for (const one of properties ? elements(properties) : []) {
    switch (one.name) {
      case 'b':
        out.bold = isOn(one);
        break;
      case 'i':
        out.italic = isOn(one);
        break;
      case 'u':
        out.underline = isOn(one);
        break;
      case 'strike':
      case 'dstrike':
        out.strike = isOn(one);
        break;
      case 'highlight':
        out.highlight = plainColour(attr(one, 'val'));
        break;
      case 'shd':
        out.highlight ??= plainColour(attr(one, 'fill'));
        break;
      case 'color':
        out.color = textColour(attr(one, 'val'));
        break;
      case 'vertAlign': {
        const at = attr(one, 'val');
        out.script = at === 'subscript' ? 'sub' : at === 'superscript' ? 'sup' : null;
        break;
      }
    }
  }
  return out;
}
const plainColour = (value: string | null): string | null =>
  value === null || /^(?:auto|none|white|clear|ffffff)$/iu.test(value) ? null : value.toLowerCase();
/** Black is no colour; neither is the dark grey or blue that themes give to headings, which are no choices. */
const textColour = (value: string | null): string | null =>
  value === null || /^(?:auto|000000|0+)$/iu.test(value) ? null : value.toLowerCase();

export interface Styles {
  readonly paragraph: (id: string | null) => ParagraphStyle;
  readonly run: (id: string | null) => Partial<Look>;
  readonly base: Look;
}

export function readStyles(root: XmlElement | null): Styles {
  const byId = new Map((root ? elements(root, 'style') : []).map((s) => [attr(s, 'styleId') ?? '', s]));
  const defaults = root && descendants(root, 'rPrDefault')[0];
  const cache = new Map<string, ParagraphStyle>();
  const normal = [...byId.values()].find(
    (s) => attr(s, 'type') === 'paragraph' && attr(s, 'default') === '1',
  );
  const resolve = (id: string, depth: number): ParagraphStyle => {
    const had = cache.get(id);
    if (had) return had;
    const style = byId.get(id);
    if (!style || depth > 20) return NO_STYLE;
    const basedOn = child(style, 'basedOn');
    const below = basedOn ? resolve(attr(basedOn, 'val') ?? '', depth + 1) : NO_STYLE;
    const pPr = child(style, 'pPr');
    const numPr = pPr && child(pPr, 'numPr');
    const numId = numPr && child(numPr, 'numId');
    const ilvl = numPr && child(numPr, 'ilvl');
    const made: ParagraphStyle = {
      look: { ...below.look, ...lookIn(child(style, 'rPr')) },
      heading: headingOf(style, pPr) ?? below.heading,
      numId: numId ? attr(numId, 'val') : below.numId,
      level: ilvl ? Number(attr(ilvl, 'val')) || 0 : below.level,
    };
    cache.set(id, made);
    return made;
  };
  return {
    paragraph: (id) => resolve(id ?? (normal && attr(normal, 'styleId')) ?? '', 0),
    run: (id) => (id === null ? {} : resolve(id, 0).look),
    base: { ...PLAIN_LOOK, ...lookIn(defaults ? child(defaults, 'rPr') : null) },
  };
}

/** By its outline level, else by the names every language's version writes for built-in styles. */
function headingOf(style: XmlElement, pPr: XmlElement | null): number | null {
  const outline = pPr && child(pPr, 'outlineLvl');
  const level = outline ? Number(attr(outline, 'val')) : NaN;
  if (level >= 0 && level < 6) return level + 1;
  const named = child(style, 'name');
  const name = (named && attr(named, 'val')) ?? '';
  const found = /^heading (\d)$/iu.exec(name);
  if (found) return Math.min(6, Number(found[1]));
  return /^title$/iu.test(name) ? 1 : null;
}

export interface Numbering {
  /** The formats of a list's levels, and what is counted together with it. */
  readonly list: (
    numId: string,
  ) => { readonly levels: readonly (LevelFormat | undefined)[]; readonly counts: string } | null;
}

export function readNumbering(root: XmlElement | null): Numbering {
  const abstracts = new Map(
    (root ? elements(root, 'abstractNum') : []).map((a) => [attr(a, 'abstractNumId') ?? '', a]),
  );
  const nums = new Map((root ? elements(root, 'num') : []).map((n) => [attr(n, 'numId') ?? '', n]));
  const cache = new Map<string, ReturnType<Numbering['list']>>();
  return {
    list(numId) {
      if (cache.has(numId)) return cache.get(numId)!;
      const num = nums.get(numId);
      const reference = num && child(num, 'abstractNumId');
      const abstractId = (reference && attr(reference, 'val')) ?? '';
      const abstract = abstracts.get(abstractId);
      if (!num || !abstract) {
        cache.set(numId, null);
        return null;
      }
      const levels: (LevelFormat | undefined)[] = [];
      for (const lvl of elements(abstract, 'lvl')) levels[Number(attr(lvl, 'ilvl')) || 0] = levelOf(lvl);
      let own = false;
      for (const override of elements(num, 'lvlOverride')) {
        const at = Number(attr(override, 'ilvl')) || 0;
        const lvl = child(override, 'lvl');
        const start = child(override, 'startOverride');
        if (lvl) levels[at] = levelOf(lvl);
        if (start && levels[at]) levels[at] = { ...levels[at]!, start: Number(attr(start, 'val')) || 0 };
        own ||= start !== null;
      }
      // Lists of one definition go on counting in each other, unless one says where it begins (17.9.15).
      const made = { levels, counts: own ? `num ${numId}` : `abstract ${abstractId}` };
      cache.set(numId, made);
      return made;
    },
  };
}

function levelOf(lvl: XmlElement): LevelFormat {
  const val = (name: string): string | null => {
    const found = child(lvl, name);
    return found ? attr(found, 'val') : null;
  };
  return {
    format: val('numFmt') ?? 'decimal',
    text: val('lvlText') ?? '',
    start: Number(val('start') ?? '1') || 0,
  };
}
