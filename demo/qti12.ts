import type { ItemSpec } from './items.ts';

/** Writes QTI 1.2 by hand, apart from the application's own writer, as another system would. */

export const escape = (text: string): string =>
  text.replace(/&/gu, '&amp;').replace(/</gu, '&lt;').replace(/>/gu, '&gt;').replace(/"/gu, '&quot;');

const field = (label: string, value: string | number): string =>
  `<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${escape(String(value))}</fieldentry></qtimetadatafield>`;
const html = (source: string): string =>
  `<material><mattext texttype="text/html">${escape(source)}</mattext></material>`;

export interface Dialect {
  /** Write the cartridge profile: cc_ metadata, SCORE as a percentage. */
  readonly cartridge: boolean;
  /** How content names a file of the package. */
  readonly fileBase: string;
}

export const CARTRIDGE: Dialect = { cartridge: true, fileBase: '%24IMS-CC-FILEBASE%24/' };
export const PLAIN: Dialect = { cartridge: false, fileBase: '' };

const PROFILES = {
  single: 'multiple_choice',
  multiple: 'multiple_response',
  text: 'fib',
  number: 'fib',
  essay: 'essay',
} as const;

export function itemXml(spec: ItemSpec, dialect: Dialect): string {
  const { cartridge, fileBase } = dialect;
  const full = cartridge ? 100 : spec.points;
  const stem = spec.stem.replace(/src="(?!https?:)/gu, `src="${fileBase}`);
  const yesNo = spec.kind === 'single' && spec.choices.length === 2 && spec.choices[0]!.text === 'True';
  const metadata = cartridge
    ? [
        field('cc_profile', `cc.${yesNo ? 'true_false' : PROFILES[spec.kind]}.v0p1`),
        field('cc_weighting', spec.points),
        spec.category ? field('cc_question_category', spec.category) : '',
        spec.kind === 'essay' ? field('qmd_computerscored', 'No') : '',
      ]
    : [
        field('qmd_weighting', spec.points),
        field('qmd_itemtype', spec.kind),
        spec.category ? field('qmd_topic', spec.category) : '',
      ];
  return `<item ident="${escape(spec.id)}" title="${escape(spec.title ?? '')}">
  <itemmetadata><qtimetadata>${metadata.join('')}</qtimetadata></itemmetadata>
  <presentation>${stem ? html(stem) : ''}${responseXml(spec)}</presentation>
  <resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="${full}"/></outcomes>
${conditions(spec, full)}
  </resprocessing>${feedbackXml(spec)}
</item>`;
}

function responseXml(spec: ItemSpec): string {
  switch (spec.kind) {
    case 'single':
    case 'multiple': {
      const labels = spec.choices.map(
        (c, at) =>
          `<response_label ident="${choiceId(at)}"${c.pinned ? ' rshuffle="No"' : ''}>${html(c.text)}</response_label>`,
      );
      const cardinality = spec.kind === 'single' ? 'Single' : 'Multiple';
      return `<response_lid ident="response1" rcardinality="${cardinality}"><render_choice shuffle="${spec.shuffle ? 'Yes' : 'No'}">${labels.join('')}</render_choice></response_lid>`;
    }
    case 'text':
      return '<response_str ident="response1"><render_fib columns="24"/></response_str>';
    case 'number':
      return '<response_num ident="response1"><render_fib fibtype="Decimal" columns="8"/></response_num>';
    case 'essay':
      return '<response_str ident="response1"><render_fib rows="12" columns="60"/></response_str>';
  }
}

const choiceId = (at: number): string => String.fromCharCode(65 + at);

function conditions(spec: ItemSpec, full: number): string {
  const set = (amount: number, action = 'Set'): string =>
    `<setvar varname="SCORE" action="${action}">${amount}</setvar>`;
  const equal = (value: string, extra = ''): string =>
    `<varequal respident="response1"${extra}>${escape(value)}</varequal>`;
  const general = spec.feedback
    ? '<respcondition continue="Yes"><conditionvar><other/></conditionvar><displayfeedback feedbacktype="Response" linkrefid="general"/></respcondition>'
    : '';
  switch (spec.kind) {
    case 'essay':
      return '';
    case 'text':
      return `${general}<respcondition><conditionvar>${orOf(spec.answers.map((a) => equal(a, ` case="${spec.caseSensitive ? 'Yes' : 'No'}"`)))}</conditionvar>${set(full)}</respcondition>`;
    case 'number': {
      const { value, tolerance = 0 } = spec;
      const low = Number((value - tolerance).toFixed(6));
      const high = Number((value + tolerance).toFixed(6));
      const range = `<and><vargte respident="response1">${low}</vargte><varlte respident="response1">${high}</varlte></and>`;
      return `${general}<respcondition><conditionvar>${tolerance ? `<or>${equal(String(value))}${range}</or>` : equal(String(value))}</conditionvar>${set(full)}</respcondition>`;
    }
    case 'single':
    case 'multiple': {
      const right = spec.choices.flatMap((c, at) => (c.right ? [choiceId(at)] : []));
      const wrong = spec.choices.flatMap((c, at) => (c.right ? [] : [choiceId(at)]));
      if (right.length === 0) return general;
      if (spec.kind === 'multiple' && spec.perChoice) {
        const each = Number((full / right.length).toFixed(4));
        const step = (id: string, action: string): string =>
          `<respcondition continue="Yes"><conditionvar>${equal(id)}</conditionvar>${set(each, action)}</respcondition>`;
        return [
          general,
          ...right.map((id) => step(id, 'Add')),
          ...wrong.map((id) => step(id, 'Subtract')),
        ].join('');
      }
      const all =
        spec.kind === 'single'
          ? equal(right[0]!)
          : `<and>${right.map((id) => equal(id)).join('')}${wrong.map((id) => `<not>${equal(id)}</not>`).join('')}</and>`;
      return `${general}<respcondition continue="No"><conditionvar>${all}</conditionvar>${set(full)}</respcondition>`;
    }
  }
}

const orOf = (tests: readonly string[]): string =>
  tests.length === 1 ? tests[0]! : `<or>${tests.join('')}</or>`;

const feedbackXml = (spec: ItemSpec): string =>
  spec.feedback
    ? `\n  <itemfeedback ident="general"><flow_mat>${html(spec.feedback)}</flow_mat></itemfeedback>`
    : '';

export const document = (content: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2">\n${content}\n</questestinterop>\n`;

export interface QuizSpec {
  readonly id: string;
  readonly title: string;
  readonly items: readonly ItemSpec[];
  readonly fields?: Readonly<Record<string, string | number>>;
  readonly instructions?: string;
  readonly draws?: readonly { title: string; bank: string; pick: number; pointsEach: number }[];
}

export function assessmentXml(quiz: QuizSpec, dialect: Dialect): string {
  const fields = Object.entries({
    ...(dialect.cartridge
      ? { cc_profile: 'cc.exam.v0p1', qmd_assessmenttype: 'Examination', qmd_scoretype: 'Percentage' }
      : {}),
    ...quiz.fields,
  });
  const rubric = quiz.instructions ? `<rubric view="All">${html(quiz.instructions)}</rubric>` : '';
  const draws = (quiz.draws ?? []).map(
    (d, at) =>
      `<section ident="${quiz.id}_draw${at + 1}" title="${escape(d.title)}"><selection_ordering><selection><sourcebank_ref>${d.bank}</sourcebank_ref><selection_number>${d.pick}</selection_number><selection_extension><points_each>${d.pointsEach}</points_each></selection_extension></selection><order order_type="Random"/></selection_ordering></section>`,
  );
  return document(`<assessment ident="${quiz.id}" title="${escape(quiz.title)}">
<qtimetadata>${fields.map(([label, value]) => field(label, value)).join('')}</qtimetadata>${rubric}
<section ident="root_section">
${quiz.items.map((i) => itemXml(i, dialect)).join('\n')}
</section>
${draws.join('\n')}
</assessment>`);
}

export const bankXml = (id: string, items: readonly ItemSpec[], dialect: Dialect, title = ''): string =>
  document(
    `<objectbank ident="${id}">${title ? `<qtimetadata>${field('bank_title', title)}</qtimetadata>` : ''}\n${items.map((i) => itemXml(i, dialect)).join('\n')}\n</objectbank>`,
  );
