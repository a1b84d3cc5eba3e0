import { Schema, type Attrs, type DOMOutputSpec, type MarkSpec, type NodeSpec } from 'prosemirror-model';

/**
 * Texts of items as the editor holds them: the allow-list, with every attribute of an element kept as it came. What
 * is answered in a text (a slot), a formula, and what has no form of its own here are atoms: moved and not looked
 * into.
 */

const given = (element: HTMLElement): Attrs => ({
  attrs: Object.fromEntries([...element.attributes].map((a) => [a.name, a.value])),
});
const keeping = { attrs: { default: {} } };
const held = (of: { readonly attrs: Attrs }): Record<string, string> =>
  of.attrs['attrs'] as Record<string, string>;

/** A block that holds other blocks. */
const holder = (tag: string, content: string, more: Partial<NodeSpec> = {}): NodeSpec => ({
  content,
  group: 'block',
  attrs: keeping,
  parseDOM: [{ tag, getAttrs: given }],
  toDOM: (node): DOMOutputSpec => [tag, held(node), 0],
  ...more,
});

const heading = (level: number): NodeSpec => ({
  content: 'inline*',
  group: 'block',
  attrs: keeping,
  parseDOM: [{ tag: `h${level}`, getAttrs: given }],
  toDOM: (node): DOMOutputSpec => [`h${level}`, held(node), 0],
});

const HEADINGS = Object.fromEntries([1, 2, 3, 4, 5, 6].map((n) => [`heading${n}`, heading(n)]));

/** Elements that are kept whole, with all that stands in them: tables, lists of terms, recordings. */
export const KEPT = ['table', 'dl', 'figure', 'video', 'audio', 'details', 'object'] as const;

const nodes: Record<string, NodeSpec> = {
  doc: { content: 'block+' },
  /** `bare`: the text stood there without a paragraph around it. */
  paragraph: {
    content: 'inline*',
    group: 'block',
    attrs: { ...keeping, bare: { default: true } },
    parseDOM: [{ tag: 'p', getAttrs: (e) => ({ ...given(e), bare: false }) }],
    toDOM: (node): DOMOutputSpec => ['p', held(node), 0],
  },
  ...HEADINGS,
  bullet_list: holder('ul', 'list_item+'),
  ordered_list: holder('ol', 'list_item+'),
  list_item: holder('li', 'block+', { group: '', defining: true }),
  blockquote: holder('blockquote', 'block+'),
  div: holder('div:not([data-slot])', 'block+', {
    toDOM: (node): DOMOutputSpec => ['div', held(node), 0],
  }),
  pre: holder('pre', 'text*', {
    marks: '',
    code: true,
    parseDOM: [{ tag: 'pre', preserveWhitespace: 'full', getAttrs: given }],
  }),
  rule: {
    group: 'block',
    attrs: keeping,
    parseDOM: [{ tag: 'hr', getAttrs: given }],
    toDOM: (node): DOMOutputSpec => ['hr', held(node)],
  },
  kept: {
    group: 'block',
    atom: true,
    attrs: { html: { default: '' } },
    parseDOM: KEPT.map((tag) => ({
      tag,
      getAttrs: (e: HTMLElement) => ({ html: e.outerHTML }),
      priority: 60,
    })),
    toDOM: (): DOMOutputSpec => ['div', { 'data-kept': '' }],
  },
  slot_block: {
    group: 'block',
    atom: true,
    attrs: { at: { default: 0 } },
    parseDOM: [{ tag: 'div[data-slot]', getAttrs: (e) => ({ at: Number(e.dataset['slot']) }), priority: 70 }],
    toDOM: (node): DOMOutputSpec => ['div', { 'data-slot': String(node.attrs['at']) }],
  },
  slot: {
    group: 'inline',
    inline: true,
    atom: true,
    attrs: { at: { default: 0 } },
    parseDOM: [
      { tag: 'span[data-slot]', getAttrs: (e) => ({ at: Number(e.dataset['slot']) }), priority: 70 },
    ],
    toDOM: (node): DOMOutputSpec => ['span', { 'data-slot': String(node.attrs['at']) }],
  },
  math: {
    group: 'inline',
    inline: true,
    atom: true,
    attrs: { markup: { default: '' } },
    parseDOM: [{ tag: 'math', getAttrs: (e) => ({ markup: e.outerHTML }), priority: 70 }],
    toDOM: (): DOMOutputSpec => ['span', { 'data-math': '' }],
  },
  image: {
    group: 'inline',
    inline: true,
    attrs: keeping,
    draggable: true,
    parseDOM: [{ tag: 'img[src]', getAttrs: given }],
    toDOM: (node): DOMOutputSpec => ['img', held(node)],
  },
  hard_break: {
    group: 'inline',
    inline: true,
    selectable: false,
    parseDOM: [{ tag: 'br' }],
    toDOM: (): DOMOutputSpec => ['br'],
  },
  text: { group: 'inline' },
};

/** A mark of an element that only has a name. */
const simple = (tag: string, also: readonly string[] = []): MarkSpec => ({
  attrs: keeping,
  parseDOM: [tag, ...also].map((t) => ({ tag: t, getAttrs: given })),
  toDOM: (mark): DOMOutputSpec => [tag, held(mark), 0],
});

/** Further elements within a line, each kept by its own name. */
const OTHERS = [
  'u',
  's',
  'del',
  'ins',
  'mark',
  'small',
  'big',
  'kbd',
  'samp',
  'var',
  'cite',
  'q',
  'dfn',
  'abbr',
  'bdi',
  'bdo',
  'tt',
  'font',
  'span',
  'b',
  'i',
  'strike',
  'acronym',
];

export const schema = new Schema({
  nodes,
  marks: {
    link: { ...simple('a'), parseDOM: [{ tag: 'a[href]', getAttrs: given }], inclusive: false },
    strong: simple('strong'),
    em: simple('em'),
    sub: { ...simple('sub'), excludes: 'sub sup' },
    sup: { ...simple('sup'), excludes: 'sub sup' },
    code: simple('code'),
    ...Object.fromEntries(
      OTHERS.map((name): [string, MarkSpec] => [
        `el_${name}`,
        name === 'span'
          ? { ...simple('span'), parseDOM: [{ tag: 'span:not([data-slot])', getAttrs: given }], excludes: '' }
          : { ...simple(name), excludes: '' },
      ]),
    ),
  },
});
