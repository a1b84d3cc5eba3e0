import { distanceBank, type ItemSpec } from './items.ts';
import { escape } from './qti12.ts';

const NS = 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"';

/** Writes QTI 2.1 by hand, apart from the application's own writer. */
function itemXml(spec: Extract<ItemSpec, { kind: 'number' }>): string {
  return `<?xml version="1.0" encoding="UTF-8"?>
<assessmentItem ${NS} identifier="${spec.id}" title="${escape(spec.title ?? spec.id)}" adaptive="false" timeDependent="false">
  <responseDeclaration identifier="RESPONSE" cardinality="single" baseType="float"><correctResponse><value>${spec.value}</value></correctResponse></responseDeclaration>
  <outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="${spec.points}"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>
  <itemBody>
    ${spec.stem.replace('</p>', ' <textEntryInteraction responseIdentifier="RESPONSE" expectedLength="8"/> NM</p>')}
    <p>Use <math xmlns="http://www.w3.org/1998/Math/MathML"><mi>D</mi><mo>=</mo><mi>S</mi><mo>×</mo><mi>T</mi></math>.</p>
  </itemBody>
  <responseProcessing>
    <responseCondition>
      <responseIf>
        <equal toleranceMode="absolute" tolerance="${spec.tolerance ?? 0}"><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></equal>
        <setOutcomeValue identifier="SCORE"><baseValue baseType="float">${spec.points}</baseValue></setOutcomeValue>
      </responseIf>
      <responseElse><setOutcomeValue identifier="SCORE"><baseValue baseType="float">0</baseValue></setOutcomeValue></responseElse>
    </responseCondition>
  </responseProcessing>
</assessmentItem>`;
}

/** Five exercises with three seeded versions each; a student is set one of each. */
export function DISTANCE_QTI21(): Record<string, string> {
  const items = distanceBank().filter((i) => i.kind === 'number');
  const files: Record<string, string> = {};
  for (const item of items) files[`items/${item.id}.xml`] = itemXml(item);
  const sections = [0, 1, 2, 3, 4].map((n) => {
    const refs = items
      .slice(n * 3, n * 3 + 3)
      .map((i) => `<assessmentItemRef identifier="${i.id}" href="items/${i.id}.xml"/>`);
    return `<assessmentSection identifier="ex${n + 1}" title="Exercise ${n + 1}" visible="true"><selection select="1"/><ordering shuffle="true"/>${refs.join('')}</assessmentSection>`;
  });
  files['test.xml'] = `<?xml version="1.0" encoding="UTF-8"?>
<assessmentTest ${NS} identifier="distance-drill" title="Speed, time and distance drill">
  <outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" masteryValue="6"/>
  <timeLimits maxTime="1800"/>
  <testPart identifier="p1" navigationMode="nonlinear" submissionMode="simultaneous"><itemSessionControl maxAttempts="3"/>${sections.join('')}</testPart>
</assessmentTest>`;
  const resources = items.map(
    (i) =>
      `<resource identifier="R_${i.id}" type="imsqti_item_xmlv2p1" href="items/${i.id}.xml"><file href="items/${i.id}.xml"/></resource>`,
  );
  files['imsmanifest.xml'] =
    `<?xml version="1.0" encoding="UTF-8"?><manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="M"><metadata><schema>QTIv2.1 Package</schema><schemaversion>1.0.0</schemaversion></metadata><organizations/><resources><resource identifier="T" type="imsqti_test_xmlv2p1" href="test.xml"><file href="test.xml"/></resource>${resources.join('')}</resources></manifest>`;
  return files;
}
