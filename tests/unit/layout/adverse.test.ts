import { expect } from 'chai';
import {
  choicesOf,
  interactionsOf,
  keyTexts,
  optionText,
  recognise,
  stemText,
  type Holding,
} from '@alforja/core';
import { read } from '../../support/read.ts';

/** Texts as people type them: nothing of them follows the corpus. */

const lines = (holding: Holding): string[] =>
  holding.items.map((i) => {
    const kinds = interactionsOf(i)
      .map((n) => n.kind)
      .join('+');
    return `${i.points} ${kinds} [${choicesOf(i).map(optionText).join(' | ')}] ${keyTexts(i, recognise(i)).join(' | ')}`;
  });
const text = (content: string): Promise<Holding> => read(content, 'given.txt');

describe('documents that follow no example', () => {
  it('statements inside a question, wrapped choices, points of a section and of an item', async () => {
    const holding = await text(`NAVIGATION 101 - MIDTERM TEST BANK

SECTION I: MULTIPLE CHOICE. Choose the best answer. (2 points each)

1.  Consider the following statements:
    I.   The tide rises twice a day.
    II.  The tide falls once a day.
    Which of them are true?
    a.  I only
    b.  I and II
    ANS: A

2.  How far does a vessel go in 90 minutes at 12 knots, given that
    she keeps a steady course throughout?
    a.  12 miles
    b.  18 miles, provided that the log has been calibrated and the helmsman does
        not wander
    ANS: B
    PTS: 3

SECTION II: ESSAY

3.  Discuss the use of radar in fog.
    ANS: Radar shows targets that cannot be seen by eye in thick weather, but it has to be tuned and watched.
`);
    expect(lines(holding)).to.deep.equal([
      '2 choice [I only | I and II] I only',
      '3 choice [12 miles | 18 miles, provided that the log has been calibrated and the helmsman does ' +
        'not wander] 18 miles, provided that the log has been calibrated and the helmsman does not ' +
        'wander',
      '1 extendedText [] ',
    ]);
    expect(stemText(holding.items[0]!))
      .to.contain('II. The tide falls')
      .and.to.contain('Which of them are true?');
    expect(holding.items[2]!.feedback.map((f) => f.kind)).to.deep.equal(['solution']);
  });

  it('true and false to be ringed', async () => {
    const holding = await text(
      '1. The needle points north. T F\n   Answer: T\n2. Deviation is the same on all headings. T F\n   Answer: F\n',
    );
    expect(lines(holding)).to.deep.equal(['1 choice [True | False] True', '1 choice [True | False] False']);
    expect(stemText(holding.items[0]!)).to.equal('The needle points north.');
  });

  it('matching and ordering', async () => {
    const holding = await text(`1. Match each light.
   1. red
   2. green
   a. starboard
   b. port
   Answer: 1-b, 2-a

2. Put the steps in order.
   a. draw the line
   b. take the bearing
   c. correct the bearing
   Answer: b, c, a
`);
    expect(lines(holding)).to.deep.equal([
      '1 match [red | green | starboard | port] red -> port | green -> starboard',
      '1 order [draw the line | take the bearing | correct the bearing] take the bearing | correct the bearing | draw the line',
    ]);
  });

  it('a passage for two of three questions', async () => {
    const holding = await text(`Use the passage below to answer questions 1-2.

The harbour lies in a bay that opens to the south.
Two lights guide vessels in.

1. Where does the bay open to?
a) north
b) south
Correct answer: b) south

2. How many lights are there?
a) one
b) two
Correct answer: b) two

3. What colour is a port-hand light?
a) red
b) green
Correct answer: a) red. Port is red in this region.
`);
    expect(holding.items.map((i) => i.stimuli.length)).to.deep.equal([1, 1, 0]);
    expect(lines(holding)[2]).to.equal('1 choice [red | green] red');
    expect(holding.documents![0]!.unread).to.deep.equal([]);
  });

  it('alternatives, a value with what is accepted, a unit, several blanks', async () => {
    const holding = await text(`1. Name what measures depth.
Key: lead line / echo sounder
2. Compute the speed for 30 miles in 2.5 hours. (3 pts)
Key: 12 (accept 11.9 to 12.1)
3. The tide is _____ m at 1400 and _____ m at 1600. [4 pts]
Key: 2.4; 3.1
4. How far in 3 hours at 12 knots?
Key: 36 nautical miles
`);
    expect(lines(holding)).to.deep.equal([
      '1 textEntry [] lead line | echo sounder',
      '3 textEntry [] 12',
      '4 textEntry+textEntry [] 2.4 | 3.1',
      '1 textEntry [] 36',
    ]);
  });

  it('Cyrillic in its own code page, UTF-16 without a mark', async () => {
    const russian = [
      0x31, 0x29, 0x20, 0xca, 0xf2, 0xee, 0x3f, 0x0a, 0xe0, 0x29, 0x20, 0xf3, 0xf2, 0xee, 0x0a, 0xe1, 0x29,
      0x20, 0xed, 0xe5, 0xf2, 0x0a, 0xce, 0xf2, 0xe2, 0xe5, 0xf2, 0x3a, 0x20, 0xe1, 0x0a,
    ];
    const twice = Uint8Array.from([...russian, 0x32, ...russian.slice(1)]);
    expect(lines(await read(twice, 'russian.txt'))[1]).to.equal('1 choice [уто | нет] нет');
    const wide = Uint8Array.from(
      [
        ...'1. ¿Qué es babor?\n*a. izquierda\nb. derecha\n2. ¿Y estribor?\na. izquierda\n*b. derecha\n',
      ].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
    );
    expect(lines(await read(wide, 'wide.txt'))).to.deep.equal([
      '1 choice [izquierda | derecha] izquierda',
      '1 choice [izquierda | derecha] derecha',
    ]);
  });

  it('boxes that are ticked, with the points on a line of their own', async () => {
    const holding = await text(
      'Frage 1 (2 P.)\nWas bedeutet "querab"?\n[ ] voraus\n[x] rechtwinklig zum Kiel\n\nFrage 2 (1 ' +
        'P.)\nWas ist ein Faden?\n[x] 1,83 m\n[ ] 10 m\n',
    );
    expect(lines(holding)).to.deep.equal([
      '2 choice [voraus | rechtwinklig zum Kiel] rechtwinklig zum Kiel',
      '1 choice [1,83 m | 10 m] 1,83 m',
    ]);
  });

  it('answers in one line behind a word, choices in brackets on one line', async () => {
    const holding = await text(
      '1. Man overboard:\n(A) stop   (B) shout and point   (C) wait\n2. In fog one sounds:\n(A) one ' +
        'long blast   (B) nothing   (C) a bell\n3. The lookout is kept:\n(A) below   (B) aft   (C) ' +
        'where one sees best\n\nAnswers: 1. B  2. A  3. C\n',
    );
    expect(lines(holding).map((l) => l.split('] ')[1])).to.deep.equal([
      'shout and point',
      'one long blast',
      'where one sees best',
    ]);
  });

  it('one-letter labels, words without numbers, choices with a word before theirs, a list behind a chapter’s name', async () => {
    const spanish = await text(
      ['¿Y esta?', '¿Y otra?', '¿Y la última?']
        .map((q, n) => `${n + 1}. ${q}\na) uno\nb) dos\nR: ${'aba'[n]}`)
        .join('\n\n'),
    );
    expect(lines(spanish).map((l) => l.split('] ')[1])).to.deep.equal(['uno', 'dos', 'uno']);
    const worded = await text(
      'Question: What is a knot?\nOption 1: A mile per hour\nOption 2: A nautical mile per hour\nAnswer: Option 2\n\n' +
        'Question: What is a fathom?\nOption 1: Six feet\nOption 2: Ten feet\nAnswer: Option 1\n',
    );
    expect(lines(worded)).to.deep.equal([
      '1 choice [A mile per hour | A nautical mile per hour] A nautical mile per hour',
      '1 choice [Six feet | Ten feet] Six feet',
    ]);
    const chapter = await text(
      'Chapter 1\n\n1. Her left side is: a. port b. starboard\n2. Her front is: a. stern b. bow\n' +
        '3. Her rear is: a. stern b. bow\n\nAnswers to Chapter 1: 1-a, 2-b, 3-a\n',
    );
    expect(lines(chapter).map((l) => l.split('] ')[1])).to.deep.equal(['port', 'bow', 'stern']);
  });

  it('says nothing of a letter with a list in it', async () => {
    const holding = await text(
      'Dear Ada,\n\nWe saw three things:\n1. a seal\n2. a buoy\n3. a lighthouse\n\nYours, Ben\n',
    );
    expect(holding.items).to.deep.equal([]);
    expect(holding.findings.map((f) => f.code)).to.include('questions-none');
  });

  it('marks as unsure what two places say otherwise, and what names no choice', async () => {
    const holding = await text(`1. Which light is at port?
*a. green
b. red
Answer: b
2. How long is a mile?
a. 1609 m
*b. 1852 m
Answer: b
3. Where is east?
a. 090
*b. 270
Answer: d
`);
    const unsure = holding.findings.filter((f) => f.code === 'key-unsure').map((f) => f.where.node);
    expect(unsure).to.include('q1').and.not.to.include('q2');
    expect(unsure).to.include('q3');
  });
});
