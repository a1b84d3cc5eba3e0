import { nameItem, Pen, type Names, type Style, type Written } from './style.ts';
import { offered, type CourseSpec, type ItemSpec, type Note } from './spec.ts';

/** Writes a course as QTI 1.2, in a style; from the ASI specification's own elements. */
export function write12(course: CourseSpec, style: Style): Written {
  const pen = new Pen(style);
  const names = new Map<string, Names>();
  const byId = new Map(course.items.map((i) => [i.id, i]));
  const { quiz } = course;
  const field = (label: string, value: string): string =>
    `<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${value}</fieldentry></qtimetadatafield>`;
  const fields = [
    ...(quiz.attempts === null ? [] : [field('cc_maxattempts', String(quiz.attempts))]),
    ...(quiz.minutes === null ? [] : [field('qmd_timelimit', String(quiz.minutes))]),
  ];
  const sections = quiz.sections.map((section, at) => {
    const selection =
      section.pick === null
        ? ''
        : `<selection><selection_number>${section.pick}</selection_number></selection>`;
    const order =
      section.shuffle || section.pick !== null
        ? `<selection_ordering>${selection}${section.shuffle ? '<order order_type="Random"/>' : ''}</selection_ordering>`
        : '';
    const items = section.items.map((id) => {
      const item = new Item12(byId.get(id)!, pen);
      names.set(id, item.names);
      return item.write();
    });
    return pen.tag(
      'section',
      { ident: `s${at + 1}`, title: pen.text(section.title) },
      [order, ...items].join(pen.gap()),
    );
  });
  const rubric = quiz.instructions
    ? `<rubric view="All"><material>${mattext(pen, pen.text(quiz.instructions))}</material></rubric>`
    : '';
  const body = pen.tag(
    'assessment',
    { ident: quiz.id, title: pen.text(quiz.title) },
    [fields.length > 0 ? `<qtimetadata>${fields.join('')}</qtimetadata>` : '', rubric, ...sections].join(
      pen.gap(),
    ),
  );
  pen.files['quiz.xml'] = `<?xml version="1.0" encoding="UTF-8"?><questestinterop>${body}</questestinterop>`;
  return { files: pen.files, names };
}

const mattext = (pen: Pen, html: string): string => {
  const cdata = pen.style.chance.maybe() && !html.includes(']]>');
  const inside = cdata
    ? `<![CDATA[${html}]]>`
    : html.replace(/&/gu, '&amp;').replace(/</gu, '&lt;').replace(/>/gu, '&gt;');
  return `<mattext texttype="text/html">${inside}</mattext>`;
};

class Item12 {
  readonly names: ReturnType<typeof nameItem>;
  private readonly most: number;

  constructor(
    private readonly item: ItemSpec,
    private readonly pen: Pen,
  ) {
    const { ask } = item;
    const responses = ask.kind === 'match' ? ask.left.length : ask.kind === 'blanks' ? ask.blanks.length : 1;
    const spots =
      ask.kind === 'spots' ? ask.spots.map((id) => ({ id, text: '', image: null, fixed: false })) : [];
    this.names = nameItem(item, pen.style, [...offered(ask), ...spots], responses);
    this.most = pen.style.chance.maybe() ? 100 : item.points;
  }

  write(): string {
    const { item, pen, names } = this;
    const percent = this.most !== item.points;
    const meta = [
      ...(item.category ? [['qmd_topic', pen.text(item.category)]] : []),
      ...(percent || pen.style.chance.maybe() || item.ask.kind === 'essay'
        ? [['cc_weighting', String(item.points)]]
        : []),
      ...(item.ask.kind === 'essay' ? [['cc_profile', 'cc.essay.v0p1']] : []),
    ].map(
      ([k, v]) =>
        `<qtimetadatafield><fieldlabel>${k}</fieldlabel><fieldentry>${v}</fieldentry></qtimetadatafield>`,
    );
    return pen.tag(
      'item',
      { ident: names.item, title: pen.text(item.title) },
      [
        meta.length > 0 ? `<itemmetadata><qtimetadata>${meta.join('')}</qtimetadata></itemmetadata>` : '',
        `<presentation>${this.presentation()}</presentation>`,
        this.processing(),
        ...item.notes.map((n, at) => this.note(n, at)),
      ].join(pen.gap()),
    );
  }

  private material(html: string): string {
    return `<material>${mattext(this.pen, html)}</material>`;
  }

  private presentation(): string {
    const { item, pen, names } = this;
    const { ask } = item;
    const stem = this.material(pen.stem(item));
    const [first] = names.responses;
    const label = (c: Parameters<Pen['choice']>[1]): string =>
      pen.tag(
        'response_label',
        { ident: names.written(c.id), ...(c.fixed ? { rshuffle: 'No' } : {}) },
        this.material(pen.choice(item, c)),
      );
    switch (ask.kind) {
      case 'choice':
        return `${stem}${pen.tag('response_lid', { ident: first!, rcardinality: ask.several ? 'Multiple' : 'Single' }, pen.tag('render_choice', { shuffle: ask.shuffle ? 'Yes' : 'No' }, ask.choices.map(label).join(pen.gap())))}`;
      case 'order':
        return `${stem}${pen.tag('response_lid', { ident: first!, rcardinality: 'Ordered' }, pen.tag('render_choice', { shuffle: 'No' }, ask.choices.map(label).join('')))}`;
      case 'match':
        return `${stem}${ask.left
          .map((row, at) =>
            pen.tag(
              'response_lid',
              { ident: names.responses[at]!, rcardinality: 'Single' },
              `${this.material(pen.choice(item, row))}<render_choice shuffle="No">${ask.right.map(label).join('')}</render_choice>`,
            ),
          )
          .join(pen.gap())}`;
      case 'blanks': {
        const { between } = ask;
        return `${stem}<flow>${between
          .map((text, at) => {
            const blank =
              at < ask.blanks.length
                ? `${pen.tag('response_str', { ident: names.responses[at]!, rcardinality: 'Single' }, '<render_fib fibtype="String" rows="1"/>')}`
                : '';
            return `${pen.gap()}${this.material(pen.text(text))}${pen.gap()}${blank}`;
          })
          .join('')}</flow>`;
      }
      case 'number':
        return `${stem}${pen.tag('response_num', { ident: first!, rcardinality: 'Single' }, '<render_fib fibtype="Decimal" rows="1"/>')}`;
      case 'text':
      case 'part':
        return `${stem}${pen.tag('response_str', { ident: first!, rcardinality: 'Single' }, '<render_fib fibtype="String" rows="1"/>')}`;
      case 'spots':
        return `${stem}${pen.tag('response_lid', { ident: first!, rcardinality: 'Single' }, `<render_hotspot><material><matimage imagtype="image/png" uri="${pen.image(ask.image, `${item.id}-map`)}" label="${pen.text(ask.image.alt)}" width="40" height="40"/></material>${ask.spots.map((id, at) => `<response_label ident="${names.written(id)}" rarea="Rectangle">${at * 10},0,10,10</response_label>`).join('')}</render_hotspot>`)}`;
      case 'essay':
        return `${stem}${pen.tag('response_str', { ident: first!, rcardinality: 'Single' }, '<render_fib fibtype="String" rows="8"/>')}`;
      default:
        throw new Error(`QTI 1.2 is not written for ${ask.kind}`);
    }
  }

  private equal(value: string, response = 0, attrs = ''): string {
    return `<varequal respident="${this.names.responses[response]!}"${attrs}>${value}</varequal>`;
  }

  /** What holds for the whole answer being right, as the inside of a conditionvar. */
  private full(): string {
    const { ask } = this.item;
    const { written } = this.names;
    const { pen } = this;
    switch (ask.kind) {
      case 'choice':
        return ask.several
          ? `<and>${ask.choices.map((c) => (ask.right.includes(c.id) ? this.equal(written(c.id)) : `<not>${this.equal(written(c.id))}</not>`)).join('')}</and>`
          : this.equal(written(ask.right[0]!));
      case 'order': {
        const bare = !ask.places && pen.style.chance.maybe();
        return `<and>${ask.right.map((id, at) => this.equal(written(id), 0, bare ? '' : ` index="${at + 1}"`)).join('')}</and>`;
      }
      case 'match':
        return `<and>${ask.pairs.map(([, r], at) => this.equal(written(r), at)).join('')}</and>`;
      case 'spots':
        return this.equal(written(ask.right));
      case 'text':
        return `<or>${ask.accepted
          .filter((a) => a.share === 1)
          .map((a) => this.equal(pen.text(a.text), 0, ` case="${a.caseSensitive ? 'Yes' : 'No'}"`))
          .join('')}</or>`;
      case 'part':
        return `<varsubstring respident="${this.names.responses[0]!}" case="${ask.caseSensitive ? 'Yes' : 'No'}">${pen.text(ask.text)}</varsubstring>`;
      case 'number':
        return this.span(ask.full);
      case 'blanks':
        return `<and>${ask.blanks.map((accepted, at) => this.anyOf(accepted, at)).join('')}</and>`;
      default:
        return '';
    }
  }

  private anyOf(accepted: readonly string[], at: number): string {
    const tests = accepted.map((text) => this.equal(this.pen.text(text), at, ' case="No"')).join('');
    return accepted.length === 1 ? tests : `<or>${tests}</or>`;
  }

  private span({ low, high }: { low: number; high: number }): string {
    const r = this.names.responses[0]!;
    return low === high
      ? `<varequal respident="${r}">${low}</varequal>`
      : `<and><vargte respident="${r}">${low}</vargte><varlte respident="${r}">${high}</varlte></and>`;
  }

  private condition(when: string, action: string, goesOn: boolean): string {
    return `<respcondition continue="${goesOn ? 'Yes' : 'No'}"><conditionvar>${when}</conditionvar>${action}</respcondition>`;
  }

  private score(share: number, action: 'Set' | 'Add'): string {
    return `<setvar varname="SCORE" action="${action}">${share * this.most}</setvar>`;
  }

  private scoring(): string[] {
    const { ask } = this.item;
    const { written } = this.names;
    switch (ask.kind) {
      case 'choice':
        return ask.each
          ? ask.choices
              .filter((c) => ask.each![c.id] !== 0)
              .map((c) =>
                this.condition(this.equal(written(c.id)), this.score(ask.each![c.id]!, 'Add'), true),
              )
          : [this.condition(this.full(), this.score(1, 'Set'), false)];
      case 'order':
        return ask.places
          ? ask.right.map((id, at) =>
              this.condition(
                this.equal(written(id), 0, ` index="${at + 1}"`),
                this.score(1 / ask.right.length, 'Add'),
                true,
              ),
            )
          : [this.condition(this.full(), this.score(1, 'Set'), false)];
      case 'match':
        return ask.each
          ? ask.pairs.map(([, r], at) =>
              this.condition(this.equal(written(r), at), this.score(1 / ask.pairs.length, 'Add'), true),
            )
          : [this.condition(this.full(), this.score(1, 'Set'), false)];
      case 'text':
        return ask.accepted.map((a) =>
          this.condition(
            this.equal(this.pen.text(a.text), 0, ` case="${a.caseSensitive ? 'Yes' : 'No'}"`),
            this.score(a.share, 'Set'),
            false,
          ),
        );
      case 'number':
        return [
          this.condition(this.span(ask.full), this.score(1, 'Set'), false),
          ...(ask.half ? [this.condition(this.span(ask.half), this.score(0.5, 'Set'), false)] : []),
        ];
      case 'blanks':
        return ask.blanks.map((accepted, at) =>
          this.condition(this.anyOf(accepted, at), this.score(1 / ask.blanks.length, 'Add'), true),
        );
      case 'essay':
        return [];
      default:
        return [this.condition(this.full(), this.score(1, 'Set'), false)];
    }
  }

  private processing(): string {
    const { item } = this;
    if (item.ask.kind === 'essay') return '';
    const min =
      this.pen.style.chance.maybe() || (item.ask.kind === 'choice' && item.ask.each) ? ' minvalue="0"' : '';
    const notes = item.notes.map((n, at) => {
      const full = this.full();
      const when =
        n.when === 'right'
          ? full
          : n.when === 'wrong'
            ? `<not>${full}</not>`
            : this.equal(this.names.written(n.when.choice));
      return this.condition(
        when,
        `<displayfeedback feedbacktype="${n.kind === 'plain' ? 'Response' : n.kind === 'hint' ? 'Hint' : 'Solution'}" linkrefid="note${at}"/>`,
        true,
      );
    });
    return `<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal"${min} maxvalue="${this.most}"/></outcomes>${[...notes, ...this.scoring()].join(this.pen.gap())}</resprocessing>`;
  }

  private note(note: Note, at: number): string {
    const text = this.material(this.pen.tag('p', {}, this.pen.text(note.text)));
    const inside =
      note.kind === 'plain'
        ? text
        : note.kind === 'hint'
          ? `<hint><hintmaterial>${text}</hintmaterial></hint>`
          : `<solution><solutionmaterial>${text}</solutionmaterial></solution>`;
    return `<itemfeedback ident="note${at}">${inside}</itemfeedback>`;
  }
}
