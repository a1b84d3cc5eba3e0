/** Quizzes on paper: a page for the browser's print, and a document for a word processor. Loaded only where it is needed. */
export { keyDocx, paperDocx } from './docx.ts';
export { keyHtml, paperHtml } from './html.ts';
export { keyOf } from './key.ts';
export { NO_HEAD, paperOf } from './paper.ts';
export { PAPER_STYLE, type Head, type Paper, type PaperKey, type PaperStyle } from './types.ts';
