import { Stream, textRun, type BlockDocument } from './block.ts';

/**
 * A plain text: each line that is not empty is a block, as long as it is no more than the rest of the line before.
 * `1. Which light ...`
 */
export function readText(path: string, text: string): BlockDocument {
  const stream = new Stream();
  for (const [at, raw] of text.split(/\r\n|\n|\r|\u2028|\u2029/u).entries()) {
    const line = raw.replace(/\f/gu, '').trimEnd();
    const inner = line.trimStart();
    const indent = line.slice(0, line.length - inner.length).replace(/\t/gu, '    ').length;
    stream.paragraph([textRun(inner)], { line: at + 1, level: Math.min(9, Math.floor(indent / 2)) });
  }
  return { path, title: '', wraps: true, blocks: stream.blocks, files: [], findings: [] };
}
