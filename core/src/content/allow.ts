/**
 * What may stand in stored content. Data only; `content/build.ts` applies it.
 * XHTML subset of QTI 2.1 ("XHTML Elements") plus harmless presentational elements met in the field.
 */

const GLOBAL = ['id', 'class', 'lang', 'xml:lang', 'dir', 'title', 'style', 'role', 'aria-label'];

export const ALLOWED: ReadonlyMap<string, readonly string[]> = new Map(
  Object.entries({
    a: ['href', 'target', 'rel', 'name'], abbr: [], acronym: [], address: [], b: [], bdi: [], bdo: [], big: [],
    blockquote: ['cite'], br: [], caption: [], center: [], cite: [], code: [], col: ['span', 'width'],
    colgroup: ['span', 'width'], dd: [], del: [], dfn: [], div: ['align'], dl: [], dt: [], em: [], figcaption: [],
    figure: [], font: ['color', 'size'], h1: [], h2: [], h3: [], h4: [], h5: [], h6: [], hr: [], i: [],
    img: ['src', 'alt', 'width', 'height', 'longdesc'], ins: [], kbd: [], li: ['value'], mark: [],
    audio: ['src', 'controls'], video: ['src', 'controls', 'width', 'height', 'poster'], source: ['src', 'type'],
    ol: ['start', 'type'], p: ['align'], pre: [], q: ['cite'], rp: [], rt: [], ruby: [], s: [], samp: [],
    section: [], small: [], span: [], strike: [], strong: [], sub: [], sup: [],
    table: ['summary', 'border', 'cellpadding', 'cellspacing', 'width'], tbody: [], td: ['colspan', 'rowspan', 'headers', 'scope', 'align', 'valign'],
    tfoot: [], th: ['colspan', 'rowspan', 'headers', 'scope', 'align', 'valign'], thead: [], time: [],
    tr: ['align', 'valign'], tt: [], u: [], ul: ['type'], var: [], wbr: [],
  }).map(([name, own]) => [name, [...GLOBAL, ...own]]),
); // prettier-ignore

/** Elements taken out with all they hold. */
export const ACTIVE: ReadonlySet<string> = new Set([
  'script', 'iframe', 'frame', 'frameset', 'embed', 'applet', 'object', 'form', 'base', 'link', 'meta', 'svg',
  'foreignobject', 'input', 'button', 'textarea', 'select', 'style', 'noscript', 'template', 'portal',
]); // prettier-ignore

/** Presentation MathML (MathML 3, chapter 3) and the annotations that carry LaTeX. */
export const MATHML: ReadonlySet<string> = new Set([
  'math', 'mrow', 'mi', 'mn', 'mo', 'mtext', 'mspace', 'ms', 'mfrac', 'msqrt', 'mroot', 'mstyle', 'merror',
  'mpadded', 'mphantom', 'mfenced', 'menclose', 'msub', 'msup', 'msubsup', 'munder', 'mover', 'munderover',
  'mmultiscripts', 'mprescripts', 'none', 'mtable', 'mtr', 'mlabeledtr', 'mtd', 'maligngroup', 'malignmark',
  'semantics', 'annotation',
]); // prettier-ignore

export const MATH_ATTRIBUTES: ReadonlySet<string> = new Set([
  'display', 'mathvariant', 'mathsize', 'stretchy', 'fence', 'separator', 'form', 'lspace', 'rspace', 'accent',
  'accentunder', 'open', 'close', 'separators', 'notation', 'linethickness', 'rowspan', 'columnspan', 'columnalign',
  'rowalign', 'width', 'height', 'depth', 'displaystyle', 'scriptlevel', 'encoding', 'movablelimits', 'largeop', 'symmetric', 'id', 'class', 'alttext', 'dir',
]); // prettier-ignore

/** Image types by the ending of a name, for where none is stated. */
export const IMAGE_TYPES: ReadonlyMap<string, string> = new Map(
  Object.entries({ png: 'image/png', jpg: 'image/jpeg', jpeg: 'image/jpeg', gif: 'image/gif', webp: 'image/webp', svg: 'image/svg+xml' }),
); // prettier-ignore

export const imageType = (path: string): string =>
  IMAGE_TYPES.get(/\.(\w+)$/u.exec(path)?.[1]?.toLowerCase() ?? '') ?? 'image/png';

/** Attributes that hold addresses. */
export const URL_ATTRIBUTES: ReadonlySet<string> = new Set(['href', 'src', 'cite', 'longdesc', 'poster']);

/** Style properties that can change how text looks but not where the page is covered or what is loaded. */
export const STYLE_PROPERTIES =
  /^(?:text-align|color|background-color|font-(?:weight|style|size|family)|text-decoration|width|height|max-width|vertical-align|list-style-type|margin(?:-\w+)?|padding(?:-\w+)?|border(?:-\w+)*|white-space|text-indent|line-height|float)$/u;
export const STYLE_VALUE = /^(?!.*(?:url|expression|import|\/\*|\\))[\w\s#%.,()'"+-]*$/iu;

/** Elements that start a new block when shown. */
export const BLOCK_ELEMENTS: ReadonlySet<string> = new Set([
  'address', 'blockquote', 'center', 'div', 'dl', 'dt', 'dd', 'figure', 'figcaption', 'h1', 'h2', 'h3', 'h4', 'h5',
  'h6', 'hr', 'li', 'ol', 'p', 'pre', 'section', 'table', 'tbody', 'thead', 'tfoot', 'tr', 'td', 'th', 'caption',
  'colgroup', 'col', 'ul',
]); // prettier-ignore
