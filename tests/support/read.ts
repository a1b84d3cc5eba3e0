import { zipSync, strToU8, type Zippable } from 'fflate';
import { readHolding, type Holding, type Item } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { document as qti12Document } from '../../demo/qti12.ts';

/** Files to a zip, and anything to a holding, as the application reads it. */
export type Files = Readonly<Record<string, string | Uint8Array>>;

export const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? strToU8(content) : content;

export function zip(files: Files): Uint8Array {
  const entries = Object.create(null) as Zippable;
  for (const [path, content] of Object.entries(files)) entries[path] = bytesOf(content);
  return zipSync(entries);
}

export const read = (content: string | Uint8Array, name = 'given.xml'): Promise<Holding> =>
  readHolding(name, bytesOf(content), nodePlatform);

export const readZip = (files: Files): Promise<Holding> => read(zip(files), 'given.zip');

export const codes = (holding: Holding): string[] => holding.findings.map((f) => f.code);

/** One QTI 1.2 item from what stands inside its `item` element. */
export async function item12(inside: string, attributes = 'ident="i1" title="One"'): Promise<Item> {
  const { items } = await read(qti12Document(`<item ${attributes}>${inside}</item>`));
  return items[0]!;
}

export const NS21 = 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"';

/** The score of an item, 0 from the start. */
export const SCORE21 =
  '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue>' +
  '<value>0</value></defaultValue></outcomeDeclaration>';
/** Scoring by one of the standard's templates. */
export const template21 = (name: string): string =>
  `<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`;

/** A document of one QTI 2.1 item. */
export const itemXml21 = (id: string, inside: string, title = `Item ${id}`): string =>
  `<assessmentItem ${NS21} identifier="${id}" title="${title}" adaptive="false" timeDependent="false">${inside}</assessmentItem>`;

/** One QTI 2.1 item from what stands inside its `assessmentItem` element. */
export async function item21(inside: string, attributes = ''): Promise<Item> {
  const { items } = await read(
    `<assessmentItem ${NS21} identifier="i1" title="One" adaptive="false" timeDependent="false" ${attributes}>${inside}</assessmentItem>`,
  );
  return items[0]!;
}
