import { strToU8 } from 'fflate';
import { DISTANCE_QTI21 } from './qti21.ts';
import { distanceBank, LIGHTS_BANK, ROUGH_BANK, SCRIPTS, TIDAL_EXAM, type ItemSpec } from './items.ts';
import { kindsPackage } from './kinds.ts';
import { harbourChart } from './pictures.ts';
import { passagePlanCase, passagePlanCsv } from './rubricFiles.ts';
import { replicaPackage } from './replicas.ts';
import { chapterBanks } from './chapters.ts';
import { assessmentXml, bankXml, CARTRIDGE, escape, PLAIN } from './qti12.ts';
import { zip, type Files } from './zip.ts';

interface DemoFile {
  readonly name: string;
  readonly about: string;
  readonly bytes: Uint8Array;
}

interface ResourceSpec {
  readonly id: string;
  readonly type: string;
  readonly href: string;
  readonly title?: string;
  readonly folder?: string;
}

/** A Common Cartridge manifest with one folder level. */
export function cartridgeManifest(
  version: 1 | 2 | 3,
  title: string,
  resources: readonly ResourceSpec[],
): string {
  const shown = resources.filter((r) => r.title);
  const folders = [...new Set(shown.map((r) => r.folder ?? ''))];
  const entry = (r: ResourceSpec): string =>
    `<item identifier="I_${r.id}" identifierref="${r.id}"><title>${escape(r.title!)}</title></item>`;
  const items = folders.map((folder) => {
    const inside = shown
      .filter((r) => (r.folder ?? '') === folder)
      .map(entry)
      .join('');
    return folder
      ? `<item identifier="F_${folder.replace(/\W/gu, '')}"><title>${escape(folder)}</title>${inside}</item>`
      : inside;
  });
  const ns = `http://www.imsglobal.org/xsd/imsccv1p${version}/imscp_v1p1`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<manifest identifier="M1" xmlns="${ns}" xmlns:lomimscc="http://ltsc.ieee.org/xsd/imsccv1p${version}/LOM/manifest">
<metadata><schema>IMS Common Cartridge</schema><schemaversion>1.${version}.0</schemaversion><lomimscc:lom><lomimscc:general><lomimscc:title><lomimscc:string>${escape(title)}</lomimscc:string></lomimscc:title></lomimscc:general></lomimscc:lom></metadata>
<organizations><organization identifier="O1" structure="rooted-hierarchy"><item identifier="root">${items.join('')}</item></organization></organizations>
<resources>
${resources.map((r) => `<resource identifier="${r.id}" type="${r.type}"${r.type === 'webcontent' ? ` href="${escape(encodeURI(r.href))}"` : ''}><file href="${escape(encodeURI(r.href))}"/></resource>`).join('\n')}
</resources></manifest>`;
}

const assessmentType = (n: number): string => `imsqti_xmlv1p2/imscc_xmlv1p${n}/assessment`;
const bankType = (n: number): string => `imsqti_xmlv1p2/imscc_xmlv1p${n}/question-bank`;
const EXAM_FIELDS = { cc_maxattempts: 1, qmd_timelimit: 45 };
const INSTRUCTIONS = '<p>Work alone. Tide tables and a calculator are allowed.</p>';

export const webLink = (n: number, title: string, url: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?><webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p${n}/imswl_v1p${n}"><title>${escape(title)}</title><url href="${escape(url)}" target="_blank"/></webLink>`;

/** A link that opens a tool by LTI, as a cartridge carries it. */
export const toolLink = (title: string, url: string): string =>
  `<?xml version="1.0"?><cartridge_basiclti_link xmlns="http://www.imsglobal.org/xsd/imslticc_v1p0" xmlns:blti="http://www.imsglobal.org/xsd/imsbasiclti_v1p0"><blti:title>${escape(title)}</blti:title><blti:launch_url>${escape(url)}</blti:launch_url></cartridge_basiclti_link>`;

/** A week of a pilotage course: an exam that is also drawn from a bank, a practice quiz, a link. */
function pilotage(
  exam: readonly ItemSpec[],
  over: { title?: string; files?: Files; examId?: string } = {},
): Uint8Array {
  return zip({
    'imsmanifest.xml': cartridgeManifest(
      1,
      'Pilotage, week 5',
      [
        {
          id: 'R_exam',
          type: assessmentType(1),
          href: 'quizzes/tidal.xml',
          title: over.title ?? 'Tidal exam',
          folder: 'Week 5',
        },
        {
          id: 'R_practice',
          type: assessmentType(1),
          href: 'quizzes/lights.xml',
          title: 'Lights practice',
          folder: 'Week 5',
        },
        { id: 'R_bank', type: bankType(1), href: 'banks/distance.xml' },
        {
          id: 'R_link',
          type: 'imswl_xmlv1p1',
          href: 'links/tables.xml',
          title: 'Tide tables',
          folder: 'Week 5',
        },
        { id: 'R_chart', type: 'webcontent', href: 'images/harbour chart.png' },
      ].filter((r) => r.id !== 'R_chart' || over.files === undefined),
    ),
    'quizzes/tidal.xml': assessmentXml(
      {
        id: over.examId ?? 'tidal-exam',
        title: over.title ?? 'Tidal exam',
        items: exam,
        fields: EXAM_FIELDS,
        instructions: INSTRUCTIONS,
      },
      CARTRIDGE,
    ),
    'quizzes/lights.xml': assessmentXml(
      {
        id: 'lights-practice',
        title: 'Lights practice',
        items: LIGHTS_BANK.slice(0, 6),
        fields: { cc_maxattempts: 'unlimited' },
      },
      CARTRIDGE,
    ),
    'banks/distance.xml': bankXml('distance-bank', distanceBank(), CARTRIDGE),
    'links/tables.xml': webLink(1, 'Tide tables', 'https://tables.example.org/harbour'),
    ...(over.files ?? { 'images/harbour chart.png': harbourChart() }),
  });
}

/** What another system gave back of the tidal exam: five things are not as they were. */
function cameBack(): Uint8Array {
  const items = TIDAL_EXAM.flatMap((item): ItemSpec[] => {
    // One key changed, one tolerance gone, one item missing, points rounded up.
    if (item.id === 'tide-01' && item.kind === 'single')
      return [{ ...item, choices: item.choices.map((c, at) => ({ ...c, right: at === 1 })) }];
    if (item.id === 'tide-02' && item.kind === 'number') return [{ ...item, tolerance: 0 }];
    if (item.id === 'tide-07') return [];
    if (item.id === 'tide-05') return [{ ...item, points: 2 }];
    return [item];
  }).map((item) => ({ ...item, id: item.id.replace('tide-', 'q_77') }));
  const extra: ItemSpec = {
    kind: 'single',
    id: 'q_7799',
    points: 1,
    stem: '<p>Sample question: choose any answer.</p>',
    choices: [{ text: 'First', right: true }, { text: 'Second' }],
  };
  return pilotage([...items, extra], { files: {}, examId: 'exam_0021' });
}

/** Plain QTI 1.2: a quiz that draws from two banks, one of them under no name. */
function plainQti(): Uint8Array {
  return zip({
    'imsmanifest.xml': `<?xml version="1.0"?><manifest identifier="M" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><organizations/><resources>
<resource identifier="mid" type="imsqti_xmlv1p2" href="midterm.xml"><file href="midterm.xml"/></resource>
<resource identifier="b1" type="imsqti_xmlv1p2" href="bank-lights.xml"><file href="bank-lights.xml"/></resource>
<resource identifier="b2" type="imsqti_xmlv1p2" href="export_20260301.xml"><file href="export_20260301.xml"/></resource></resources></manifest>`,
    'midterm.xml': assessmentXml(
      {
        id: 'midterm',
        title: 'Navigation midterm',
        items: TIDAL_EXAM.slice(4, 8),
        fields: { qmd_timelimit: 60 },
        instructions: '<p>Five questions are drawn for you.</p>',
        draws: [
          { title: 'Lights and shapes', bank: 'lights', pick: 5, pointsEach: 2 },
          { title: 'Odds and ends', bank: 'rough', pick: 8, pointsEach: 1 },
        ],
      },
      PLAIN,
    ),
    'bank-lights.xml': bankXml('lights', LIGHTS_BANK, PLAIN, 'Ch. 6 Lights and shapes'),
    'export_20260301.xml': bankXml('rough', [...ROUGH_BANK, ...SCRIPTS], PLAIN),
  });
}

/** A second cartridge: a folder around everything, rubbish in it, a broken quiz beside a good one. */
function broken(): Uint8Array {
  const inside: Files = {
    'imsmanifest.xml': cartridgeManifest(2, 'Chartwork, saved twice', [
      { id: 'R1', type: assessmentType(2), href: 'good.xml', title: 'Chartwork quiz' },
      { id: 'R2', type: assessmentType(2), href: 'torn.xml', title: 'Torn quiz' },
      { id: 'R3', type: 'webcontent', href: 'handout.pdf', title: 'Handout' },
    ]),
    'good.xml': assessmentXml(
      {
        id: 'chartwork',
        title: 'Chartwork quiz',
        items: [
          ...ROUGH_BANK.slice(3),
          {
            kind: 'single',
            id: 'evil',
            points: 1,
            stem: '<p onclick="alert(1)">Which scale do you measure distance on?<script>alert(2)</script></p>',
            choices: [{ text: 'The latitude scale', right: true }, { text: 'The longitude scale' }],
          },
        ],
      },
      CARTRIDGE,
    ),
    'torn.xml': assessmentXml(
      { id: 'torn', title: 'Torn quiz', items: LIGHTS_BANK.slice(0, 2) },
      CARTRIDGE,
    ).replace('</respcondition>', '</respcond'),
  };
  const wrapped = Object.fromEntries(
    Object.entries(inside).map(([path, content]) => [`Chartwork export/${path}`, content]),
  );
  return zip({ ...wrapped, '__MACOSX/._x': 'rubbish', 'Chartwork export/.DS_Store': 'rubbish' });
}

/** Buoyage, a cartridge of a later version with LTI link. */
function buoyage(): Uint8Array {
  const lti = toolLink('Buoy drill', 'https://drills.example.org/launch');
  return zip({
    'imsmanifest.xml': cartridgeManifest(3, 'Buoyage and lights', [
      { id: 'R1', type: assessmentType(3), href: 'exam.xml', title: 'Lights exam', folder: 'Unit 2' },
      { id: 'R2', type: 'imsbasiclti_xmlv1p0', href: 'drill.xml', title: 'Buoy drill', folder: 'Unit 2' },
    ]),
    'exam.xml': assessmentXml(
      {
        id: 'lights-exam',
        title: 'Lights exam',
        items: [...LIGHTS_BANK, ...SCRIPTS],
        fields: { cc_maxattempts: 2, qmd_timelimit: 30 },
      },
      CARTRIDGE,
    ),
    'drill.xml': lti,
  });
}

/** Every file of the demo, made from source. */
export function demoFiles(): DemoFile[] {
  return [
    {
      name: 'pilotage-week5.imscc',
      about: 'A course week: an exam, a practice quiz, a bank, a link',
      bytes: pilotage(TIDAL_EXAM),
    },
    {
      name: 'buoyage-unit2.imscc',
      about: 'A later cartridge, several scripts, an LTI link',
      bytes: buoyage(),
    },
    {
      name: 'midterm-export.zip',
      about: 'Plain QTI 1.2: draws from two banks, one of them nameless',
      bytes: plainQti(),
    },
    {
      name: 'distance-drill.zip',
      about: 'QTI 2.1: seeded replicas, one of three is set',
      bytes: zip(DISTANCE_QTI21()),
    },
    {
      name: 'exercises-week6.zip',
      about: 'Plain QTI 1.2: seven exercises by a script, three replicas each, with data files',
      bytes: replicaPackage(),
    },
    {
      name: 'textbook-chapters.zip',
      about: 'Plain QTI 1.2: two chapters of a textbook as banks',
      bytes: chapterBanks(),
    },
    {
      name: 'every-kind.zip',
      about: 'QTI 2.1: one question of every kind',
      bytes: zip(kindsPackage()),
    },
    { name: 'chartwork-broken.zip', about: 'A damaged cartridge: what can be read is read', bytes: broken() },
    {
      name: 'passage-plan.csv',
      about: 'A rubric as it was kept in a spreadsheet',
      bytes: strToU8(passagePlanCsv()),
    },
    {
      name: 'passage-plan-came-back.json',
      about: 'CASE: the rubric as another system gave it back',
      bytes: strToU8(passagePlanCase()),
    },
    { name: 'pilotage-came-back.imscc', about: 'What another system gave back of week 5', bytes: cameBack() },
  ];
}
