import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { customType } from 'drizzle-orm/sqlite-core';

/**
 * Phrases that documents of items are made of, the most frequent last: a short document is packed by what it has in
 * common with them (RFC 1951, 3.2.3, distances into what went before; zlib's `deflateSetDictionary`). It is never
 * changed: what was packed with it is unpacked with it. Another one is another `KIND`.
 */
const PHRASES = Buffer.from(
  [
    '<qtimetadata><qtimetadatafield><fieldlabel></fieldlabel><fieldentry></fieldentry></qtimetadatafield>',
    '<itemmetadata></qtimetadata></itemmetadata>\\n<presentation><material><mattext texttype=\\"text/html\\">&lt;p&gt;',
    '&lt;em&gt;&lt;/em&gt;&lt;/p&gt;</mattext></material><response_lid ident=\\"response1\\" rcardinality=\\"Single\\">',
    'rcardinality=\\"Multiple\\"><render_choice shuffle=\\"Yes\\"><response_label ident=\\"A\\"><material><mattext>',
    '</mattext></material></response_label></render_choice></response_lid></presentation>\\n<response_str ident=\\"',
    '<render_fib columns=\\"24\\"/></response_str></presentation>\\n  <resprocessing><outcomes><decvar varname=\\"SCORE\\"',
    ' vartype=\\"Decimal\\" minvalue=\\"0\\" maxvalue=\\"1\\"/></outcomes>\\n<respcondition continue=\\"Yes\\">',
    '<conditionvar><varequal respident=\\"response1\\" case=\\"No\\"></varequal></conditionvar><setvar varname=\\"SCORE\\"',
    ' action=\\"Add\\">1</setvar></respcondition>\\n  </resprocessing>\\n<itemfeedback ident=\\"general\\"><flow_mat>',
    '<displayfeedback feedbacktype=\\"Response\\" linkrefid=\\"\\"/></flow_mat></itemfeedback>\\n</item>"},"points":1,',
    '<assessmentItem xmlns=\\"http://www.imsglobal.org/xsd/imsqti_v2p1\\" identifier=\\"\\" title=\\"\\" adaptive=\\"false\\"',
    ' timeDependent=\\"false\\"><responseDeclaration identifier=\\"RESPONSE\\" cardinality=\\"single\\" baseType=\\"identifier\\">',
    '<correctResponse><value></value></correctResponse></responseDeclaration><outcomeDeclaration identifier=\\"SCORE\\"',
    ' cardinality=\\"single\\" baseType=\\"float\\"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>',
    '<itemBody><p></p><choiceInteraction responseIdentifier=\\"RESPONSE\\" shuffle=\\"true\\" maxChoices=\\"1\\"><prompt>',
    '</prompt><simpleChoice identifier=\\"\\"></simpleChoice></choiceInteraction></itemBody><responseProcessing>',
    '<responseCondition><responseIf><match><variable identifier=\\"RESPONSE\\"/><correct identifier=\\"RESPONSE\\"/></match>',
    '<setOutcomeValue identifier=\\"SCORE\\"><baseValue baseType=\\"float\\">1</baseValue></setOutcomeValue></responseIf>',
    '</responseCondition></responseProcessing></assessmentItem>"},"pointsExact":true,"scale":1,"adaptive":false,',
    '"pointsExact":true,"scale":1,"adaptive":false,"templates":[],"templateRules":[],"stimuli":[],"kept":[]}',
    '{"$v":2,"id":"","title":"","standard":"qti1.2","standard":"qti2.1","body":[{"kind":"element","name":"p","attrs":{},',
    '"children":[{"kind":"text","text":""}]},{"kind":"textEntry","responseId":"response1","expectedLength":24,',
    '"placeholder":null}]}],{"kind":"choice","responseId":"response1","shuffle":true,"minChoices":0,"prompt":[],',
    '"choices":[{"id":"A","content":[{"kind":"text","text":""}],"fixed":false},{"id":"B","content":[{"kind":"element",',
    '"maxChoices":1}],"responses":[{"id":"response1","cardinality":"single","baseType":"identifier","correct":[],',
    '"cardinality":"multiple","baseType":"string","mapping":null,"areaMapping":null}],"outcomes":[{"id":"SCORE",',
    '"cardinality":"single","baseType":"float","defaultValue":[0],"normalMaximum":1,"normalMinimum":0,',
    '"externalScored":false,"lookup":null},{"id":"FEEDBACK","cardinality":"multiple","baseType":"identifier",',
    '"defaultValue":[],"normalMaximum":null,"normalMinimum":null,"externalScored":false,"lookup":null}],',
    '"scoreOutcome":"SCORE","scoring":{"rules":[{"do":"if","branches":[{"when":{"op":"call","name":"or","args":[',
    '{"op":"call","name":"stringMatch","args":[{"op":"variable","id":"response1"},{"op":"baseValue",',
    '"baseType":"string","value":""}],"attrs":{"caseSensitive":"false"}}]},{"op":"call","name":"member","args":[',
    '{"op":"call","name":"equal","args":[{"op":"baseValue","baseType":"float","value":0}],',
    '"attrs":{"toleranceMode":"exact"}},{"op":"call","name":"and","args":[{"op":"call","name":"gte","args":[',
    '{"op":"call","name":"lte","args":[{"op":"variable","id":"response1"},{"op":"baseValue","baseType":"float",',
    '"value":{"op":"call","name":"sum","args":[{"op":"variable","id":"SCORE"},{"op":"baseValue","baseType":"float",',
    '{"op":"call","name":"match","args":[{"op":"variable","id":"response1"},{"op":"baseValue","baseType":"identifier",',
    '"value":"A"}]},"then":[{"do":"set","id":"SCORE","value":{"op":"baseValue","baseType":"float","value":1}}]}],',
    '"otherwise":[]}],"untranslated":[]},"pointsSources":[{"source":"qmd_weighting","value":1}],"feedback":[',
    '{"id":"general","title":"","outcome":"FEEDBACK","show":true,"kind":"general","content":[{"kind":"text","text":"',
    '"}]}],"category":null,"metadata":[{"label":"","value":""}],"language":null,"files":[],"origin":{"kind":"xml",',
    '"path":".xml","line":1,"column":1,"xml":"<item ident=\\"\\" title=\\"\\">\\n  ',
  ].join(''),
);

/** The same with what stands behind an item: what its scoring was recognised as. */
const ALSO_RECOGNISED = Buffer.concat([
  PHRASES,
  Buffer.from(
    [
      '\n{"$v":1,"shape":{"kind":"sum-of-parts","parts":[{"responseId":"response1","shape":{"kind":"program"}}]},',
      '\n{"$v":1,"shape":{"kind":"pattern","points":1,"patterns":[""],"substrings":[]},"best":{"answers":{},"raw":0,',
      '\n{"$v":1,"shape":{"kind":"manual"},"best":{"answers":{},"raw":0,"exact":true},"key":{"response1":[]},"numbers":{}}',
      '\n{"$v":1,"shape":{"kind":"accepted-answers","answers":[{"text":"","points":1,"caseSensitive":false},{"text":"',
      '","points":1,"caseSensitive":false}]},"best":{"answers":{"response1":["',
      '\n{"$v":1,"shape":{"kind":"numeric","points":1,"value":0,"stated":true,"tolerance":{"mode":"range","low":0,"high":0,',
      '"includesLow":true,"includesHigh":true}},"best":{"answers":{"response1":[',
      '\n{"$v":1,"shape":{"kind":"per-choice","unit":"choice","values":{"A":1,"B":1,"C":-1,"D":-1},"otherwise":0,',
      '"lower":0,"upper":null},"best":{"answers":{"response1":["A","B"]},"raw":2,"exact":true},"key":{"response1":["A","B"]},',
      '\n{"$v":1,"shape":{"kind":"all-or-nothing","points":1,"ordered":false},"best":{"answers":{"response1":["A"]},',
      '"raw":1,"exact":true},"key":{"response1":["A"]},"numbers":{}}',
    ].join(''),
  ),
]);

/** What the first byte of packed text says: which phrases it was packed with. */
const KINDS: ReadonlyMap<number | undefined, Buffer> = new Map([
  [1, PHRASES],
  [2, ALSO_RECOGNISED],
]);
const KIND = 2;
/** Of a few kilobytes each, more effort makes nothing smaller, and little room is enough. */
const PACKING = { level: 3, dictionary: KINDS.get(KIND)!, chunkSize: 2048 } as const;
const ROOM = 8192;

/** Packs a short document of JSON. @returns a byte that says how it was packed, and what came of it */
export function pack(text: string): Uint8Array {
  const packed = deflateRawSync(text, PACKING);
  const out = new Uint8Array(packed.length + 1);
  out[0] = KIND;
  out.set(packed, 1);
  return out;
}

/** @throws where the bytes are none that `pack` made */
export function unpack(bytes: Uint8Array): string {
  const dictionary = KINDS.get(bytes[0]);
  if (!dictionary) throw new Error('Packed text is of a kind that this version does not know.');
  return inflateRawSync(bytes.subarray(1), { dictionary, chunkSize: ROOM }).toString('utf8');
}

/** A column of short documents: packed, or as plain text where an older version wrote it. */
export const packedText = customType<{ data: string; driverData: string | Uint8Array | ArrayBuffer }>({
  dataType: () => 'text',
  toDriver: pack,
  fromDriver: (kept) => (typeof kept === 'string' ? kept : unpack(new Uint8Array(kept as ArrayBuffer))),
});
