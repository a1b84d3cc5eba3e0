import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { NODE_KINDS, STATES } from '@alforja/core';
import { EDIT_WAYS } from '../../shared/edits.ts';
import { JOB_KINDS } from '../../shared/types.ts';
import { packedText } from './packed.ts';

/** A file that came in or went out. Its bytes stand in the file store under `sha256` and never change. */
export const packages = sqliteTable(
  'packages',
  {
    id: text('id').primaryKey(),
    sha256: text('sha256').notNull().unique(),
    name: text('name').notNull(),
    bytes: integer('bytes').notNull(),
    broughtAt: integer('brought_at').notNull(),
    state: text('state', { enum: ['reading', 'ready', 'failed'] }).notNull(),
    /** What lists show, as JSON. */
    summary: text('summary'),
    /** The finding that says why it could not be read, as JSON. */
    failure: text('failure'),
    /** How it came: brought by a person, by a look into a course, made here, or a part of what was brought together. */
    cameBy: text('came_by', { enum: ['file', 'course', 'made', 'part'] })
      .notNull()
      .default('file'),
    /** The reading whose rows are shown; null until it has been read. */
    readingId: text('reading_id'),
    /** What that reading rests on: the reader's version, and the rules that held. */
    readingBasis: text('reading_basis'),
    /** When somebody threw it away; it can be brought back for a while. */
    thrownAt: integer('thrown_at'),
    /** When somebody said that its findings are dealt with. */
    settledAt: integer('settled_at'),
    /** How many things of it were put right, as it is shown. */
    changed: integer('changed').notNull().default(0),
  },
  (table) => [index('packages_reading').on(table.readingId)],
);

/**
 * A reading of a package: what was read, but for its items. One that no package is shown by, and no job is making, is
 * removed.
 */
export const readings = sqliteTable(
  'readings',
  {
    id: text('id').primaryKey(),
    packageId: text('package_id').notNull(),
    /** The job that makes it; null once something took its place. */
    jobId: text('job_id'),
    /** The holding without its items, as JSON. */
    tree: text('tree').notNull(),
    /** Families of replicas among its items, as JSON; null where it was read before they were looked for. */
    families: text('families'),
    /** What the edits over it come to, and what could be put right by more of them, as JSON. */
    putRight: text('put_right'),
    /** While it is being made: the first items it has come upon, as JSON. */
    first: text('first'),
  },
  (table) => [index('readings_package').on(table.packageId)],
);

/** What was put right in a package, step by step, in order; one taken back stays, and can be brought back. */
export const editSteps = sqliteTable(
  'edit_steps',
  {
    id: text('id').primaryKey(),
    packageId: text('package_id').notNull(),
    /** Its place in the layer of its package, from 0. */
    at: integer('at').notNull(),
    madeAt: integer('made_at').notNull(),
    way: text('way', { enum: EDIT_WAYS }).notNull(),
    /** The edits, as JSON; each with what stood there before, once it has been applied. */
    edits: text('edits').notNull(),
    /** Those that could not be applied when it was last read, and why, as JSON. */
    refused: text('refused'),
    /** Edits of earlier steps that this one takes back, as JSON. */
    takesBack: text('takes_back'),
    undoneAt: integer('undone_at'),
  },
  (table) => [uniqueIndex('edit_steps_package').on(table.packageId, table.at)],
);

/** One row an item of a reading: the canonical JSON beside the columns that lists need. */
export const items = sqliteTable(
  'items',
  {
    readingId: text('reading_id').notNull(),
    seq: integer('seq').notNull(),
    nodeId: text('node_id').notNull(),
    title: text('title').notNull(),
    stem: text('stem').notNull(),
    kinds: text('kinds').notNull(),
    points: real('points').notNull(),
    fingerprint: text('fingerprint').notNull(),
    category: text('category'),
    gradedByHand: integer('graded_by_hand', { mode: 'boolean' }).notNull().default(false),
    json: packedText('json').notNull(),
    /** The files it shows, as JSON; empty where it shows none. */
    files: text('files').notNull().default(''),
    /** What is right, as lists show it. */
    keyText: text('key_text').notNull().default(''),
    /** The same in a few characters, as a comparison shows it; null where it was read before that was kept. */
    shortKey: text('short_key'),
    /** The words it is found by: text, choices, category, files; and those of what is right. */
    says: text('says').notNull().default(''),
    keyed: text('keyed').notNull().default(''),
  },
  (table) => [
    primaryKey({ columns: [table.readingId, table.seq] }),
    index('items_fingerprint').on(table.fingerprint),
    index('items_node').on(table.readingId, table.nodeId),
  ],
);

/** Quizzes and banks of a reading, to be found by their names. */
export const containers = sqliteTable(
  'containers',
  {
    readingId: text('reading_id').notNull(),
    kind: text('kind', { enum: ['quiz', 'bank'] }).notNull(),
    at: integer('at').notNull(),
    nodeId: text('node_id').notNull(),
    title: text('title').notNull(),
    items: integer('items').notNull(),
  },
  (table) => [primaryKey({ columns: [table.readingId, table.kind, table.at] })],
);

/** Every word that items are found by, beside the pairs of letters it is made of. */
export const searchWords = sqliteTable('search_words', {
  word: text('word').primaryKey(),
  grams: text('grams').notNull(),
});

/** Work done apart from requests; survives a restart and is safe to run twice. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    /** Its place in the order in which jobs were asked for: clocks may jump. */
    seq: integer('seq').notNull().default(0),
    kind: text('kind', { enum: JOB_KINDS }).notNull(),
    /** The package or transfer it works for. */
    subject: text('subject').notNull(),
    /** Of all jobs with the same turn one runs at a time, in their order: a course that is sent into. */
    turn: text('turn'),
    /** The process that runs it. */
    owner: text('owner'),
    /** Asked for again while it ran: it follows itself. */
    again: integer('again', { mode: 'boolean' }).notNull().default(false),
    state: text('state', { enum: ['queued', 'running', 'done', 'failed', 'cancelled'] }).notNull(),
    step: text('step').notNull().default(''),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    failure: text('failure'),
    createdAt: integer('created_at').notNull(),
    startedAt: integer('started_at'),
    endedAt: integer('ended_at'),
    attempts: integer('attempts').notNull().default(0),
    /** Waits until nothing that somebody waits for is in the queue. */
    background: integer('background', { mode: 'boolean' }).notNull().default(false),
  },
  (table) => [
    index('jobs_state').on(table.state, table.seq),
    index('jobs_subject').on(table.subject, table.seq),
    index('jobs_seq').on(table.seq),
    // Nothing is worked on twice at once, whoever asks for it.
    uniqueIndex('jobs_open')
      .on(table.kind, table.subject)
      .where(sql`state IN ('queued', 'running')`),
  ],
);

/** Processes that have jobs, each with its lease; one that no longer renews it has lost its jobs. */
export const processes = sqliteTable('processes', {
  id: text('id').primaryKey(),
  /** The machine, and where process numbers count there. */
  host: text('host').notNull(),
  pid: integer('pid').notNull(),
  /** When its lease ends unless it is renewed, in ms of the clock of its host. */
  leaseUntil: integer('lease_until').notNull(),
});

/** What open pages should know of, in order; the latest of it only. */
export const news = sqliteTable('news', {
  id: integer('id').primaryKey({ autoIncrement: true }),
  /** A job that changed, as JSON. */
  job: text('job'),
  /** The subject that changed, where it is no news of a job. */
  changed: text('changed'),
});

export const transfers = sqliteTable('transfers', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  packageId: text('package_id').notNull(),
  target: text('target').notNull(),
  createdAt: integer('created_at').notNull(),
  /** What was written: a file of the store, its name, and the findings, as JSON. */
  sent: text('sent'),
  sentAt: integer('sent_at'),
  arrivedPackageId: text('arrived_package_id'),
  /** What came of the comparison, but for the rows of both sides, as JSON. */
  arrival: text('arrival'),
  /** The rows of both sides; null where the comparison has them in itself. */
  seamId: text('seam_id'),
  comparedAt: integer('compared_at'),
  /** What lists show of the arrival, as JSON. */
  tally: text('tally'),
  /** Where it comes from and goes to; null for a file in hand. */
  sourceCourse: text('source_course'),
  destCourse: text('dest_course'),
  /** The snapshots of both courses that the plan rests on. */
  sourceSnapshot: text('source_snapshot'),
  destSnapshot: text('dest_snapshot'),
  /** The snapshot that the comparison rests on. */
  backSnapshot: text('back_snapshot'),
  /** Whether the format was chosen by hand. */
  targetChosen: integer('target_chosen', { mode: 'boolean' }).notNull().default(false),
  /** Which settings come along, and how sections are matched, as JSON. */
  options: text('options'),
  /** How each thing lands, in which format it travels, and what that loses, as JSON. */
  plan: text('plan'),
  /** What was changed by hand of what was proposed, as JSON by thing. */
  overrides: text('overrides').notNull().default('{}'),
  /** The steps of sending, what was made there, notes, as JSON. */
  sending: text('sending'),
  /** Differences that somebody took as they are, with reasons, as JSON. */
  decisions: text('decisions').notNull().default('[]'),
  batchId: text('batch_id'),
  /** What was done with it, act by act, as JSON; only ever added to. */
  record: text('record').notNull().default('[]'),
  /** When somebody threw it away; it can be brought back for a while. */
  thrownAt: integer('thrown_at'),
});

/**
 * The rows of a comparison of both sides, in the order in which they are shown. Those that no transfer shows are
 * removed.
 */
export const arrivalRows = sqliteTable(
  'arrival_rows',
  {
    /** The comparison that made them. */
    seamId: text('seam_id').notNull(),
    at: integer('at').notNull(),
    state: text('state', { enum: STATES }).notNull(),
    /** The item on either side; null where there is none. */
    source: text('source'),
    arrived: text('arrived'),
    /** Whether it is as it was put right before it was sent. */
    purposed: integer('purposed', { mode: 'boolean' }).notNull().default(false),
    /** Both sides, and how they differ, as JSON. */
    row: text('row').notNull(),
  },
  (table) => [primaryKey({ columns: [table.seamId, table.at] })],
);

/** A connected course system. */
export const systems = sqliteTable('systems', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  address: text('address').notNull(),
  /** Encrypted (AES-256-GCM); never leaves the server. */
  token: text('token').notNull(),
  /** What it said of itself: formats, whose token this is, as JSON. */
  about: text('about').notNull(),
  createdAt: integer('created_at').notNull(),
  syncedAt: integer('synced_at'),
  /** Why it could not be asked the last time, in words. */
  trouble: text('trouble'),
});

/** A connected publisher's library. */
export const libraries = sqliteTable('libraries', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  address: text('address').notNull().unique(),
  /** Encrypted (AES-256-GCM); never leaves the server. */
  token: text('token').notNull(),
  createdAt: integer('created_at').notNull(),
});

/** Courses (sections of a course in a term) of all systems, as last seen. */
export const courses = sqliteTable(
  'courses',
  {
    /** The system's id, a colon, and the class's. */
    id: text('id').primaryKey(),
    systemId: text('system_id').notNull(),
    classId: text('class_id').notNull(),
    /** What lists show, as JSON. */
    listing: text('listing').notNull(),
  },
  (table) => [index('courses_system').on(table.systemId)],
);

/** A course as it stood at a moment: what its outline said, and the package it gave. */
export const snapshots = sqliteTable(
  'snapshots',
  {
    id: text('id').primaryKey(),
    courseId: text('course_id').notNull(),
    packageId: text('package_id').notNull(),
    outline: text('outline').notNull(),
    takenAt: integer('taken_at').notNull(),
    /** Of the whole course, or reading back what arrived. */
    purpose: text('purpose', { enum: ['whole', 'back'] }).notNull(),
    /** When somebody threw it away; it can be brought back for a while. */
    thrownAt: integer('thrown_at'),
  },
  (table) => [index('snapshots_course').on(table.courseId, table.takenAt)],
);

/** Many courses moved by one plan. */
export const batches = sqliteTable('batches', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  createdAt: integer('created_at').notNull(),
  /** What goes and how it lands, for all pairs, as JSON. */
  plan: text('plan').notNull(),
  /** When somebody threw it away; it can be brought back for a while. */
  thrownAt: integer('thrown_at'),
});

export const batchPairs = sqliteTable(
  'batch_pairs',
  {
    batchId: text('batch_id').notNull(),
    at: integer('at').notNull(),
    sourceCourse: text('source_course').notNull(),
    destCourse: text('dest_course').notNull(),
    /** What is otherwise for this pair, as JSON. */
    exception: text('exception'),
    transferId: text('transfer_id'),
    state: text('state', { enum: ['waiting', 'running', 'done', 'failed', 'left'] }).notNull(),
    trouble: text('trouble'),
  },
  (table) => [primaryKey({ columns: [table.batchId, table.at] })],
);

/** What happened while nobody looked. */
export const notices = sqliteTable('notices', {
  id: text('id').primaryKey(),
  at: integer('at').notNull(),
  text: text('text').notNull(),
  href: text('href').notNull(),
  tone: text('tone', { enum: ['good', 'look', 'bad'] }).notNull(),
  read: integer('read', { mode: 'boolean' }).notNull().default(false),
});

/** What was ticked: one row a node of the source. */
export const ticks = sqliteTable(
  'ticks',
  {
    transferId: text('transfer_id').notNull(),
    kind: text('kind', { enum: NODE_KINDS }).notNull(),
    nodeId: text('node_id').notNull(),
  },
  (table) => [primaryKey({ columns: [table.transferId, table.kind, table.nodeId] })],
);

/** Rubrics that were made, pasted or copied here, and those that follow another. */
export const ownRubrics = sqliteTable('own_rubrics', {
  id: text('id').primaryKey(),
  /** As it stands, as JSON. */
  rubric: text('rubric').notNull(),
  /**
   * Where it was copied from: a place (package, course, or `own`) and the rubric's id there; null where it
   * was made here.
   */
  fromPlace: text('from_place'),
  fromRubric: text('from_rubric'),
  /** The original as it was when it was copied or last taken over, as JSON. */
  basis: text('basis'),
  /** Whether it is kept in step with its original, and not changed of itself. */
  follows: integer('follows', { mode: 'boolean' }).notNull().default(false),
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
});

/** Quizzes and banks that are made here. */
export const made = sqliteTable('made', {
  id: text('id').primaryKey(),
  kind: text('kind', { enum: ['quiz', 'bank'] }).notNull(),
  title: text('title').notNull(),
  /** Which items of which places stand in it, and what is wanted of them, as JSON. */
  draft: text('draft').notNull(),
  /** Counts up with every change, so that two pages do not write over one another. */
  version: integer('version').notNull().default(0),
  /** The package it was set down as the last time, and the version that was. */
  packageId: text('package_id'),
  packageVersion: integer('package_version'),
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  /** When somebody threw it away; it can be brought back for a while. */
  thrownAt: integer('thrown_at'),
});

/** Items as they were when they were taken into something that is made here. */
export const takenItems = sqliteTable(
  'taken_items',
  {
    madeId: text('made_id').notNull(),
    place: text('place').notNull(),
    item: text('item').notNull(),
    /** The package it was read from, whose files it shows. */
    packageId: text('package_id').notNull(),
    /** A sum over all that it says, to see whether its source says something else now. */
    print: text('print').notNull(),
    json: text('json').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.madeId, table.place, table.item] }),
    index('taken_items_place').on(table.place, table.item),
  ],
);

/** How tables of rubrics, and documents and tables of questions, are laid out that look alike, as somebody has confirmed. */
export const knownLayouts = sqliteTable(
  'known_layouts',
  {
    id: text('id').primaryKey(),
    kind: text('kind', { enum: ['rubrics', 'questions'] }).notNull(),
    name: text('name').notNull(),
    /** What they look like, as JSON: the header's cells of rubrics, folded. */
    looks: text('looks').notNull(),
    /** The layout, as JSON: the role of each column of rubrics. */
    layout: text('layout').notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [uniqueIndex('known_layouts_looks').on(table.kind, table.looks)],
);

/** Readings of private metadata fields that somebody has confirmed; each holds for packages of its origin. */
export const readingRules = sqliteTable('reading_rules', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  origin: text('origin').notNull(),
  label: text('label').notNull(),
  means: text('means', { enum: ['points', 'category', 'type'] }).notNull(),
  createdAt: integer('created_at').notNull(),
});

/** Requests that changed something, by the keys they came with, and what was answered: none is done twice. */
export const requests = sqliteTable(
  'requests',
  {
    key: text('key').primaryKey(),
    /** What was asked for: the method and the address. */
    asked: text('asked').notNull(),
    at: integer('at').notNull(),
    /** The answer; null until there is one. */
    status: integer('status'),
    body: text('body'),
  },
  (table) => [index('requests_at').on(table.at)],
);
