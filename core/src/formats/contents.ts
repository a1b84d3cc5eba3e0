import type { ContentContext } from '../content/build.ts';
import type { ParamsOf } from '../model/codes.ts';
import type { ItemFile } from '../model/holding.ts';
import type { XmlElement } from '../xml/tree.ts';
import { report, type DocumentContext } from './draft.ts';

/** A content context for one item: collects its files and reports each kind of trouble once. */
export function itemContent(
  context: DocumentContext,
  element: XmlElement,
  node: string,
  special?: ContentContext['special'],
): { content: ContentContext; readonly files: ItemFile[]; addFiles: (more: readonly ItemFile[]) => void } {
  const files = new Map<string, ItemFile>();
  const said = new Set<string>();
  const once: ContentContext['note'] = (code, severity, ...[given]) => {
    const params = given ?? ({} as ParamsOf<typeof code>);
    const key = code + JSON.stringify(params);
    if (said.has(key)) return;
    said.add(key);
    report(context, element, code, severity, params, node);
  };
  const content: ContentContext = {
    note: once,
    special,
    embed(base64, type) {
      const path = context.embed(base64, type);
      if (path !== null) files.set(path, { path, present: true });
      return path;
    },
    resolve(address, use) {
      const found = context.file(address, use);
      if (found.path === null) return found.address;
      files.set(found.path, { path: found.path, present: found.present });
      if (!found.present) once('file-missing', 'error', { path: found.path });
      if (found.moved) once('filebase-moved', 'note', { from: found.moved, to: found.path });
      return found.path;
    },
  };
  return {
    content,
    addFiles(more) {
      for (const file of more) files.set(file.path, file);
    },
    get files() {
      return [...files.values()];
    },
  };
}
