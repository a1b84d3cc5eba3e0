import type { Chance } from './random.ts';
import type { Block, Choice, Image, ItemSpec } from './spec.ts';
import { drawn } from './png.ts';

/** How one side is written down: everything in it may differ between two sides that say the same. */
export interface Style {
  readonly chance: Chance;
  /** Marks on letters written as characters of their own. */
  readonly decomposed: boolean;
  /** Identifiers of items and choices, and names of files, are this side's own. */
  readonly renamed: boolean;
  /** Identifiers of choices and responses are names that objects have of themselves. */
  readonly hostile: boolean;
  /** Line breaks and blanks between elements. */
  readonly spread: boolean;
}

/** What a writer called things, so that an answer in its identifiers can be read back. */
export interface Names {
  readonly item: string;
  /** Responses in the order of the item's questions. */
  readonly responses: readonly string[];
  /** Choice as the specification names it, by what was written. */
  readonly choices: ReadonlyMap<string, string>;
}

export interface Written {
  readonly files: Record<string, string | Uint8Array>;
  readonly names: ReadonlyMap<string, Names>;
}

/** Gathers the files of one side and writes texts in its style. */
export class Pen {
  readonly files: Record<string, string | Uint8Array> = {};
  private readonly images = new Map<string, string>();

  constructor(readonly style: Style) {}

  /** Text for XML: composed or decomposed, a character by its number now and then. */
  text(given: string): string {
    const { chance, decomposed } = this.style;
    const escaped = given
      .normalize(decomposed ? 'NFD' : 'NFC')
      .replace(/&/gu, '&amp;')
      .replace(/</gu, '&lt;')
      .replace(/"/gu, '&quot;');
    if (!chance.maybe(0.05)) return escaped;
    return escaped.replace(/[^\p{ASCII}]/u, (c) => `&#x${c.codePointAt(0)!.toString(16)};`);
  }

  gap(): string {
    return this.style.spread && this.style.chance.maybe() ? this.style.chance.pick(['\n', '\n  ', ' ']) : '';
  }

  /** An element; its attributes in any order. */
  tag(
    name: string,
    attrs: Readonly<Record<string, string | number | boolean | null>>,
    inside: string | null = null,
  ): string {
    const given = Object.entries(attrs).filter(
      (e): e is [string, string | number | boolean] => e[1] !== null,
    );
    const order = this.style.spread ? this.style.chance.shuffled(given) : given;
    const head = [name, ...order.map(([k, v]) => `${k}="${String(v)}"`)].join(' ');
    return inside === null ? `<${head}/>` : `<${head}>${inside}</${name}>`;
  }

  /** Where a picture lies on this side; the same bytes once. `as` asks for a name of its own. */
  image({ drawing }: Image, as: string): string {
    const path = this.images.get(`${as} ${drawing}`) ?? `media/${this.style.renamed ? 'x' : ''}${as}.png`;
    this.images.set(`${as} ${drawing}`, path);
    this.files[path] = drawn(drawing);
    return path;
  }

  img(image: Image, as: string): string {
    return this.tag('img', { src: this.image(image, as), alt: this.text(image.alt) });
  }

  formula(over: string, under: string): string {
    const part = (t: string): string => (/\d/u.test(t) ? `<mn>${t}</mn>` : `<mi>${t}</mi>`);
    const body = `<mfrac>${this.gap()}${part(over)}${this.gap()}${part(under)}</mfrac>`;
    const row = this.style.chance.maybe() ? `<mrow>${body}</mrow>` : body;
    return `<math xmlns="http://www.w3.org/1998/Math/MathML">${row}</math>`;
  }

  block(block: Block, as: string): string {
    const { chance } = this.style;
    switch (block.kind) {
      case 'paragraph': {
        const mark = chance.pick(['b', 'strong']);
        const strong = block.strong ? ` <${mark}>${this.text(block.strong)}</${mark}>` : '';
        return this.tag(chance.pick(['p', 'p', 'div']), {}, `${this.text(block.text)}${strong}`);
      }
      case 'formula':
        return this.tag('p', {}, this.formula(block.over, block.under));
      case 'image':
        return this.tag('p', {}, this.img(block.image, as));
      case 'list':
        return this.tag(
          'ul',
          {},
          block.entries.map((e) => this.tag('li', {}, this.text(e))).join(this.gap()),
        );
    }
  }

  stem(item: ItemSpec): string {
    return item.stem.map((b, at) => this.block(b, `${item.id}-${at}`)).join(this.gap());
  }

  choice(item: ItemSpec, choice: Choice): string {
    const image = choice.image ? this.img(choice.image, `${item.id}-${choice.id}`) : '';
    return [this.text(choice.text), image].filter((t) => t !== '').join(' ');
  }
}

/** Names that every object has something under already. */
const HOSTILE = [
  'constructor',
  '__proto__',
  'toString',
  'valueOf',
  'hasOwnProperty',
  'isPrototypeOf',
  'toLocaleString',
  '__defineGetter__',
  '__lookupSetter__',
  'propertyIsEnumerable',
];

/** Identifiers of one item on this side. */
export function nameItem(
  item: ItemSpec,
  style: Style,
  choices: readonly Choice[],
  responses: number,
): Names & { written: (id: string) => string } {
  const hostile = style.hostile ? style.chance.shuffled(HOSTILE) : null;
  const ids = new Map(choices.map((c, at) => [c.id, hostile?.[at]]));
  const prefix = style.renamed ? `n${style.chance.whole(10, 99)}_` : '';
  const written = (id: string): string => ids.get(id) ?? `${prefix}${id}`;
  const base = hostile
    ? style.chance.pick(HOSTILE)
    : style.renamed
      ? style.chance.pick(['RESPONSE', 'ANSWER', 'r1'])
      : 'RESPONSE';
  return {
    item: style.renamed ? `own_${item.id}_${style.chance.whole(100, 999)}` : item.id,
    responses: Array.from({ length: responses }, (_, at) => (responses === 1 ? base : `${base}_${at + 1}`)),
    choices: new Map(choices.map((c) => [written(c.id), c.id])),
    written,
  };
}
