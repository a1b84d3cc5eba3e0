import type { FindingCode } from '../model/codes.ts';
import type { Finding } from '../model/finding.ts';
import { own } from '../model/own.ts';
import { fillWords } from './fill.ts';

interface Words {
  /** What happened, with {parameters}. */
  readonly message: string;
  /** What to do about it. */
  readonly hint: string;
}

/** The wording of every finding, in one place, by code. */
export const WORDS: Readonly<Record<FindingCode, Words>> = {
  'file-empty': { message: 'The file is empty (0 bytes).', hint: 'Export or download it again.' },
  'format-unknown': {
    message: 'No questions or rubrics found in this file.',
    hint: 'Bring a QTI package, a Common Cartridge, or an XML file with QTI items.',
  },
  'archive-unsafe-name': {
    message:
      'The archive has an entry whose name could write outside its folder or is not what it seems: “{name}”.',
    hint: 'Do not open this archive elsewhere; ask for a new export.',
  },
  'archive-duplicate-name': {
    message: 'The archive has two entries named “{name}”; which one a system reads is not defined.',
    hint: 'Ask for a new export.',
  },
  'archive-encrypted': {
    message: 'The archive is encrypted (“{name}”).',
    hint: 'Export it without a password.',
  },
  'archive-truncated': {
    message: 'The zip is incomplete.',
    hint: 'Download it again. ({detail})',
  },
  'archive-size-false': {
    message: '“{name}” does not have the size the archive declares, or overlaps another entry.',
    hint: 'Do not trust this archive; ask for a new export.',
  },
  'archive-crc': {
    message: 'The checksum of this entry is wrong ({detail}); it was left out, the rest is read.',
    hint: 'Download the archive again.',
  },
  'archive-too-large': {
    message: 'The archive is over the limit for {what}: {found}, at most {limit}.',
    hint: 'Split it, or raise the limit if you trust it.',
  },
  'table-too-large': {
    message: 'The table has more {what} than a table of questions or rubrics has: {found}, at most {limit}.',
    hint: 'Take out empty rows and columns, or split it into several files.',
  },
  'archive-method': {
    message: 'This entry is packed in a way that is not read (method {method}); it was left out.',
    hint: 'Zip it again with the usual method (deflate).',
  },
  'archive-nested-too-deep': {
    message: 'There is a package inside a package inside this package; it is not opened.',
    hint: 'Take the innermost package out and bring it on its own.',
  },
  'archive-surrounded': {
    message: 'There are other bytes before or after the archive; they were passed over.',
    hint: 'Nothing to do.',
  },
  'archive-backslashes': {
    message: '{count} names use backslashes; read as folders.',
    hint: 'Nothing to do.',
  },
  'nested-package': {
    message: 'This is a package inside the package; it was read too.',
    hint: 'Nothing to do.',
  },
  'wrapper-folder': {
    message: 'Everything lies in a folder “{folder}”; read as if it were not there.',
    hint: 'Nothing to do.',
  },
  'system-files-ignored': {
    message: '{count} files of an operating system were passed over.',
    hint: 'Nothing to do.',
  },
  'encoding-repaired': {
    message: 'The file says its encoding is {declared}, but it is {used}; read as {used}.',
    hint: 'Check accents and special characters.',
  },
  'xml-malformed': {
    message: 'The XML is not well-formed: {detail}.',
    hint: 'This file was left out. Mend it at this line, or export it again.',
  },
  'xml-entity-refused': {
    message:
      'The document declares entities of its own ({names}); they are never expanded and stand as they are.',
    hint: 'Put the text itself in their place.',
  },
  'xml-too-deep': { message: 'The XML is nested too deep: {detail}.', hint: 'This file was left out.' },
  'doctype-ignored': { message: 'The document names a DTD; it was not fetched.', hint: 'Nothing to do.' },
  'manifest-missing': {
    message: 'The archive has no imsmanifest.xml; every QTI file in it was read.',
    hint: 'Nothing to do.',
  },
  'xml-entity-known': {
    message:
      'Names of characters that HTML knows are used without being declared ({names}); read as HTML means them.',
    hint: 'Nothing to do here; write the characters themselves for stricter readers.',
  },
  'dependency-missing': {
    message: 'The manifest says this needs the resource “{resource}”, which it does not list.',
    hint: 'See whether something is missing, and export it again.',
  },
  'declared-type-wrong': {
    message: 'The manifest calls this “{declared}”, but it is a {found}; read as what it is.',
    hint: 'Nothing to do.',
  },
  'file-missing': {
    message: 'A file is not in the package: {path}.',
    hint: 'Add the file, or take the reference out; students would see a gap.',
  },
  'file-unlisted': {
    message: 'This file is in the archive but not in its manifest.',
    hint: 'Other systems may leave it behind.',
  },
  'file-name-differs': {
    message: 'The manifest says “{listed}”, the archive has “{found}”; taken as the same.',
    hint: 'Nothing to do.',
  },
  'package-empty': { message: 'The archive has nothing in it.', hint: 'Export it again.' },
  'title-missing': {
    message: 'This bank has no title; “{used}” is used.',
    hint: 'Give it a name when you send it.',
  },
  'findings-many': {
    message: 'There are {count} more findings like the {listed} that are listed ({code}).',
    hint: 'Put one of them right where the file is made; the others mostly have the same cause.',
  },
  'opaque-content': {
    message: '{what} is not read into its own kind; it is kept as it stands.',
    hint: 'It goes back unchanged to the standard it came from.',
  },
  'active-content-removed': {
    message: '{what} was taken out: active content is never kept.',
    hint: 'If it was needed, say the same in plain content.',
  },
  'markup-escaped-twice': {
    message: 'Mark-up was escaped once too often and would have been shown as text; it is read as mark-up.',
    hint: 'Look at the item as students see it.',
  },
  'remote-media': {
    message: 'A picture or recording lies on another server: {address}.',
    hint: 'It may be gone one day; put the file in the package.',
  },
  'identifier-repeated': {
    message: 'The identifier “{id}” is used more than once; this {kind} gets a number.',
    hint: 'Nothing to do.',
  },
  'item-ref-missing': {
    message: 'A reference leads to nothing: {item}.',
    hint: 'The question or bank is not in the package; export it together with the quiz.',
  },
  'resource-unread': { message: 'This is a {kind}; it is not read.', hint: 'Nothing to do.' },
  'scoring-untranslated': {
    message: 'A part of the scoring is not understood: {what}.',
    hint: 'Scores of this item cannot be proved.',
  },
  'scoring-too-long': {
    message: 'Its scoring takes more steps than any question needs; it was broken off.',
    hint: 'Scores of this item cannot be proved; look at what its program does.',
  },
  'item-unreadable': {
    message: 'This question could not be read ({detail}); the others were.',
    hint: 'Look at it where it comes from; the file has it as it was.',
  },
  'document-unreadable': {
    message: 'This file of the package could not be read ({detail}); the others were.',
    hint: 'Export it again; the package has it as it was.',
  },
  'template-unknown': {
    message: 'The scoring refers to a template that is not in the package: {template}.',
    hint: 'Scores of this item cannot be proved.',
  },
  'points-disagree': {
    message: 'The file names different points for this item ({said}); {used} is used.',
    hint: 'Check what it should be worth.',
  },
  'filebase-moved': {
    message: 'A file was not where the item says ({from}); taken from {to}.',
    hint: 'Nothing to do.',
  },
  'stylesheet-ignored': {
    message: 'A style sheet is named ({href}); it is not applied.',
    hint: 'Nothing to do.',
  },
  'reading-proposed': {
    message: 'The field “{label}” looks like {means} by its values ({values}).',
    hint: 'Confirm it once, and it holds for every package of this origin.',
  },
  'rules-unreadable': {
    message: 'The file of reading rules cannot be used: {detail}.',
    hint: 'Give a JSON file as the application exports it: { "rules": [ { "name", "origin", "label", "means" } ] }.',
  },
  'layout-unreadable': {
    message: 'The layout cannot be used: {detail}.',
    hint: 'Give the layout that inspect prints, changed or not: { "question", "choice", "key", "labels" }.',
  },
  'layout-misfit': {
    message:
      'The confirmed layout ({said}) does not fit this document; it was read as it was found ({found}).',
    hint: 'Compare the document with its questions, and set the layout for it alone.',
  },
  'questions-none': {
    message: 'No questions were found in this document.',
    hint: 'Number the questions and letter their choices, or say how it is laid out.',
  },
  'key-unsure': {
    message: 'What is right here is not sure: {why}.',
    hint: 'Look at the document beside it, and set the key.',
  },
  'points-assumed': {
    message: 'Nothing says what this question is worth; it is taken as {points}.',
    hint: 'Set the points, or leave them.',
  },
  'blocks-unread': {
    message: '{count} blocks of the document are in no question, the first of them “{first}”.',
    hint: 'Look at the loose ends of the document; give them to a question, or leave them.',
  },
  'answers-unpaired': {
    message: 'The answers in “{answers}” belong to no questions that are here.',
    hint: 'Bring the file of the questions with it.',
  },
  'picture-unread': {
    message: 'A picture could not be read: {what}.',
    hint: 'Save it as PNG or JPEG in the document, and bring the document again.',
  },
  'document-scanned': {
    message: 'The {pages} pages of this PDF are pictures: there is no text in them.',
    hint: 'Have its text recognised first, or ask for the document it was made from.',
  },
  'pages-scanned': {
    message: 'There is no text on page {pages}; a picture of text cannot be read.',
    hint: 'Look at these pages, and add what is on them.',
  },
  'document-damaged': {
    message: 'The document is damaged or cut off: {detail}.',
    hint: 'Download it again, or save it again where it was made.',
  },
  'document-beyond': {
    message: 'Reading this PDF takes more than {limit}.',
    hint: 'Print it into a new PDF, or ask for the document it was made from.',
  },
  'document-protected': {
    message: 'The document is protected by a password.',
    hint: 'Open it with the password, save it without one, and bring it again.',
  },
  'key-missing': {
    message: 'No answer scores: the item has no key.',
    hint: 'Set the right answer before you use it.',
  },
  'blank-unanswered': {
    message: 'Nothing is accepted in blank {blank}; the others score.',
    hint: 'Say what is right there, or take the blank out.',
  },
  'key-unknown-choice': {
    message: 'The scoring names a choice that is not there: {choice}.',
    hint: 'Set the key again.',
  },
  'key-several-on-single': {
    message: 'Only one choice can be ticked, but {count} are right.',
    hint: 'Let several be ticked, or settle on one.',
  },
  'points-not-positive': {
    message: 'The item is worth {points} points.',
    hint: 'Give it points, or mark it as practice.',
  },
  'stem-empty': {
    message: 'Nothing is asked: the item has no text before its answers.',
    hint: 'Write the question.',
  },
  'duplicate-choices': { message: 'Two choices say the same: “{text}”.', hint: 'Change or drop one.' },
  'all-of-the-above-shuffled': {
    message: '“{text}” moves when choices are shuffled.',
    hint: 'Pin it last, or word it so that its place does not matter.',
  },
  'draw-too-large': {
    message: 'The draw asks for {pick} items, its pool has {of}.',
    hint: 'Draw fewer, or add items to the pool.',
  },
  'draw-points-unequal': {
    message: 'Items of one draw are worth different points ({points}).',
    hint: 'Make them equal, or students sit different exams.',
  },
  'pattern-not-run': {
    message: 'The pattern /{pattern}/ cannot be run: {why}.',
    hint: 'Scores of this item cannot be proved; write the pattern more simply.',
  },
  'scoring-type': {
    message: 'The scoring mixes types: {what}.',
    hint: 'Such a rule gives nothing; correct the declaration or the rule.',
  },
  'tolerance-missing': {
    message: 'The answer {value} has to be met exactly.',
    hint: 'Allow for rounding: give a tolerance, or say how many figures are wanted.',
  },
  'solution-with-attempts': {
    message: 'The solution is shown while further attempts are allowed ({attempts}).',
    hint: 'Show it after the last attempt, or allow only one.',
  },
  'points-unreached': {
    message: 'The best answer scores {found}, the item says it gives {stated}.',
    hint: 'Make the parts add up, or state what they give.',
  },
  'image-alt-missing': {
    message: 'A picture has no words for those who cannot see it: {file}.',
    hint: 'Describe it, or mark it as decoration.',
  },
  'link-dead': {
    message: 'A link leads to nothing in the package: {href}.',
    hint: 'Add what it leads to, or take the link out.',
  },
  'key-longest': {
    message: 'The right choice is far longer than the others ({length} characters, the next has {next}).',
    hint: 'Make choices similar in length; students guess the longest.',
  },
  'dates-impossible': {
    message: 'It opens at {opens} and closes at {closes}: it can never be opened.',
    hint: 'Set the closing date after the opening date.',
  },
  'quiz-unnamed': {
    message: 'This quiz has no name.',
    hint: 'Give it one when you send it.',
  },
  'bank-mixed-kinds': {
    message: 'This bank holds several kinds of question: {said}.',
    hint: 'Look through it before you draw from it.',
  },
  'item-unused': {
    message: 'No quiz and no bank refers to this item.',
    hint: 'Put it in a bank, or leave it out.',
  },
  'duplicate-items': {
    message: 'This item asks the same in the same words as “{other}”.',
    hint: 'Keep one of them.',
  },
  'near-duplicate-items': {
    message: 'This item shares {percent} % of its wording with “{other}”.',
    hint: 'Check whether both are meant.',
  },
  'family-points-unequal': {
    message: 'Replicas of “{family}” are worth different points ({points}).',
    hint: 'Make them equal: each student is set one of them.',
  },
  'family-key-stale': {
    message: 'The key {key} does not follow the numbers of this replica: {why}.',
    hint: 'Work it out once by hand, and put the key right.',
  },
  'family-draw-partial': {
    message: 'The draw chooses one replica of “{family}”, and {lacking} of them are not in its pool.',
    hint: 'Put them into the pool, or leave them out on purpose.',
  },
  'family-drawn-twice': {
    message:
      'The draw can set one student several replicas of “{family}”, and so of {count} exercises in all.',
    hint: 'Draw one of each exercise, where none should be met twice.',
  },
  'loss-kind': {
    message: 'The kind of question cannot stay as it is: {what}.',
    hint: 'Check it at the destination; what does not work there has to be rebuilt by hand.',
  },
  'loss-scoring': {
    message: 'The scoring cannot be carried whole: {what}.',
    hint: 'Check its score at the destination.',
  },
  'loss-draw': { message: 'The draw cannot be carried: {what}.', hint: 'Set it again at the destination.' },
  'loss-bank': {
    message: 'The bank changes: {what}.',
    hint: 'Check the bank at the destination.',
  },
  'loss-feedback': {
    message: 'Feedback changes: {what}.',
    hint: 'Check when it is shown at the destination.',
  },
  'loss-settings': {
    message: 'A setting has no place in the target: {what}.',
    hint: 'Set it by hand at the destination.',
  },
  'loss-section': { message: 'Sections change: {what}.', hint: 'Check the order at the destination.' },
  'loss-metadata': {
    message: 'Fields without a place in the target were left out: {what}.',
    hint: 'They stay in the source.',
  },
  'loss-link': {
    message: 'A link has no place in the target: {what}.',
    hint: 'Set it again at the destination.',
  },
  'file-not-written': {
    message: 'A file could not be taken along: {path}.',
    hint: 'It is not in the source.',
  },
  'response-unknown': {
    message: '“{response}” is no response of this item.',
    hint: 'Write ID=VALUE with one of: {known}.',
  },
  'choice-unknown': { message: '“{choice}” is no choice of this item.', hint: 'Use one of: {known}.' },
  usage: { message: '{detail}', hint: 'Run alforja --help.' },
  'file-unreadable': {
    message: 'The file cannot be read: {detail}.',
    hint: 'Check the path and your rights.',
  },
  'versions-unequal': {
    message:
      'The versions are worth {said} points, and the quiz says {points}: they hold items that give no points.',
    hint: 'Put the points and keys of those items right.',
  },
  'replicas-few': {
    message: 'Only {made} of {wanted} replicas were made: its parameters have too few values for more.',
    hint: 'Ask for fewer, or give its parameters a wider range.',
  },
  'replica-unproved': {
    message: 'The replica of seed {seed} does not score as the question it is made from, so it is left out.',
    hint: 'Look at what its template processing sets; the other replicas were run and score the same.',
  },
  'node-unknown': {
    message: 'Nothing in the file is called “{name}”.',
    hint: 'Use an id or a title as `alforja inspect` shows them.',
  },
  'node-ambiguous': { message: 'More than one thing is called “{name}”.', hint: 'Use its id.' },
  'item-without-templates': {
    message: '“{item}” has no parameters: every replica of it would be the same.',
    hint: 'Choose an item with template processing (QTI 2 or 3).',
  },
  'draw-empty': {
    message: 'The draw of “{section}” has nothing to draw from.',
    hint: 'Put items into its bank, or take the draw out of the quiz.',
  },
  'source-gone': {
    message: '{count} of its questions are not where they were taken from any more.',
    hint: 'Bring their package back, or take them out.',
  },
  'rubric-stays': {
    message: 'Questions of it are graded by {rubrics}, and no package carries rubrics.',
    hint: 'Bring them into the course from Rubrics, and attach them there.',
  },
  'made-too-large': {
    message: 'It would take {count} questions along, and what is made here holds at most {limit}.',
    hint: 'Narrow what its draws choose from: by category, kind, points or words.',
  },
  'looked-at-later': {
    message: 'Of its {count} questions only points, kinds and categories have been checked so far.',
    hint: 'Try it or print it: each of them is read and checked then.',
  },
  'met-twice': {
    message: 'One candidate can be set “{first}” and “{other}”: {because} (in {percent} % of all cases).',
    hint: 'Take one of them out.',
  },
  'pass-mark-above-total': {
    message: 'The pass mark is {mark} points, and only {points} can be reached.',
    hint: 'Lower the pass mark, or give more points.',
  },
  'time-short': {
    message: '{count} questions in {minutes} minutes: some {needs} minutes are expected.',
    hint: 'Give more time, or ask less.',
  },
  'plan-lacks': {
    message: 'The plan wants {wanted} of “{category}” ({kind}), and its banks have {has}.',
    hint: 'Plan fewer, or add a bank.',
  },
  'plan-missed': {
    message: 'On average it gives other points than the plan says: {gaps}.',
    hint: 'Change the questions, or the plan.',
  },
  'category-unasked': {
    message: 'Nobody is asked about {categories}.',
    hint: 'Draw a question of each, or leave them out on purpose.',
  },
  'target-unknown': { message: '“{target}” is no format that can be written.', hint: 'Use one of: {known}.' },
  'sending-failed': {
    message: '{detail}',
    hint: 'What has landed stays there; go on from the Send stage.',
  },
  'json-malformed': {
    message: 'It is not well-formed JSON: {detail}',
    hint: 'Export it again; nothing of it was read.',
  },
  'rubrics-none': {
    message: 'There are no rubrics in it.',
    hint: 'A rubric has criteria, each with levels.',
  },
  'rubric-unread': {
    message: 'Rubric {at} of the file could not be read: {detail}',
    hint: 'The others were read. Mend it where it was exported.',
  },
  'rubric-header-missing': {
    message: 'No row names the columns of a rubric.',
    hint: 'Begin with a row such as: criterion, description, weight, level 1, points 1, description 1, level 2 …',
  },
  'rubric-row-unread': {
    message: 'A row names no criterion and was passed over.',
    hint: 'Fill in its criterion.',
  },
  'rubric-points-unread': {
    message: '“{text}” is no number of points.',
    hint: 'Write a number, or a range such as “4 to 5”.',
  },
  'rubric-no-levels': {
    message: 'The criterion “{criterion}” has no levels.',
    hint: 'Give it at least two.',
  },
  'rubric-levels-order': {
    message: 'The levels of “{criterion}” go neither up nor down in points.',
    hint: 'Graders read across: put them in order.',
  },
  'rubric-equal-points': {
    message: 'Two levels of “{criterion}” are worth {points} points.',
    hint: 'Then it makes no difference which is ticked.',
  },
  'rubric-description-empty': {
    message: '{count} levels of “{criterion}” are not described.',
    hint: 'The others are; say what these ask for.',
  },
  'rubric-weights': {
    message: 'The weights of “{rubric}” add up to {sum}, not to 100.',
    hint: 'Change them until they do.',
  },
  'rubric-same-content': {
    message: '“{first}” and “{second}” say the same under two names.',
    hint: 'Keep one, or tell them apart.',
  },
  'rubric-same-name': {
    message: 'Two rubrics are called “{title}” and differ.',
    hint: 'Give one of them a name of its own.',
  },
  'rubric-points-differ': {
    message: '“{rubric}” gives up to {total} points, and “{item}”, which is graded by it, is worth {points}.',
    hint: 'Make them the same, or graders and students see two totals.',
  },
  'rubric-unattached': {
    message: '“{rubric}” is attached to nothing.',
    hint: 'Attach it to what it grades, or leave it as it is, to be used later.',
  },
  'rubric-not-taken': {
    message: '“{rubric}” is not included: the destination imports no rubrics.',
    hint: 'Download it as a workbook or a page to print.',
  },
  'loss-rubric': {
    message: 'A table has no place for all of “{rubric}”: {what}.',
    hint: 'CASE keeps it.',
  },
  'edits-unreadable': {
    message: 'The list of edits cannot be used: {detail}.',
    hint: 'It is a JSON list; each entry names an operation (“op”), a node and what is wanted (“to”).',
  },
  'work-too-long': {
    message: 'It took more than {seconds} seconds and was broken off ({step}).',
    hint: 'Nothing is lost. Try it once more; if it happens again, the file asks for too much: split it.',
  },
  'work-too-large': {
    message: 'It needed more than {megabytes} MB of memory and was broken off ({step}).',
    hint: 'Nothing is lost. Split the file, or allow more memory where this application is run.',
  },
  'job-failed': {
    message: 'The work stopped: {detail}.',
    hint: 'Nothing was lost. Try again; if it stops again, keep the file for us.',
  },
  'keeping-refused': { message: '{detail}', hint: '' },
  'job-interrupted': {
    message: 'It was begun {times} times, and each time the application ended before it was done.',
    hint: 'Nothing was lost, and it is not begun again by itself. Try once more; if that ends the same way, whoever runs this application finds why in its log.',
  },
  'reading-stopped': {
    message: 'The reading was stopped by hand.',
    hint: 'Read it again whenever you like.',
  },
  'stored-damaged': {
    message:
      'The bytes that are stored of this file have changed on the disk: their sum is no longer {sha256}.',
    hint: 'Bring the same file in again, or read the course again; that puts the right bytes in their place.',
  },
  'stored-gone': {
    message: 'The bytes that were stored of this file are no longer there ({sha256}).',
    hint: 'Bring the same file in again, or read the course again; that puts them back.',
  },
  'upload-too-large': {
    message: 'The file is over {limit} MB.',
    hint: 'Split it, or raise the limit in the settings of the server.',
  },
  'target-exists': {
    message: 'The file is there already: {path}.',
    hint: 'Give another name, or --force to replace it.',
  },
};

export type SpokenFinding = Finding & { readonly message: string; readonly hint: string };

/** A finding with its words; one of another version that has none here is called by its code. */
export function speak(found: Finding): SpokenFinding {
  const words = own(WORDS, found.code) ?? { message: found.code, hint: '' };
  return {
    ...found,
    message: fillWords(words.message, found.params),
    hint: fillWords(words.hint, found.params),
  };
}
