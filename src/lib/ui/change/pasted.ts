/** What a word processor or a page puts into the clipboard, down to what says something. */

const GONE = 'script, style, meta, link, title, iframe, object, embed, form, input, button, svg, xml';
/** Attributes that stay, by element. */
const STAY: Readonly<Record<string, readonly string[]>> = {
  a: ['href'],
  img: ['src', 'alt', 'width', 'height'],
  td: ['colspan', 'rowspan'],
  th: ['colspan', 'rowspan'],
  ol: ['start'],
};
const HOLLOW: ReadonlySet<string> = new Set(['span', 'font', 'div', 'section', 'article', 'main']);

/** HTML without styles, classes, comments, scripts and elements of other programs. */
export function cleanPasted(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const e of body.querySelectorAll(GONE)) e.remove();
  const comments = document.createTreeWalker(body, NodeFilter.SHOW_COMMENT);
  const found: ChildNode[] = [];
  while (comments.nextNode()) found.push(comments.currentNode as ChildNode);
  for (const c of found) c.remove();
  for (const e of [...body.querySelectorAll('*')].reverse()) {
    const name = e.localName;
    // Pictures on a disk or another page cannot be fetched; those that come as files are taken by themselves.
    if (name === 'img') e.remove();
    else if (e.closest('math') !== null) continue;
    else if (
      name.includes(':') ||
      (HOLLOW.has(name) && (name !== 'div' || e.querySelector('p, div, ul, ol, table') !== null))
    )
      e.replaceWith(...e.childNodes);
    else
      for (const { name: attribute } of [...e.attributes])
        if (!(STAY[name] ?? []).includes(attribute)) e.removeAttribute(attribute);
  }
  return body.innerHTML;
}
