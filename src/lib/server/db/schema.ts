import { index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** A file that came in or went out. Its bytes stand in the file store under `sha256` and never change. */
export const packages = sqliteTable('packages', {
  id: text('id').primaryKey(),
  sha256: text('sha256').notNull().unique(),
  name: text('name').notNull(),
  bytes: integer('bytes').notNull(),
  broughtAt: integer('brought_at').notNull(),
  state: text('state', { enum: ['reading', 'ready', 'failed'] }).notNull(),
  /** The holding without its items, as JSON; null until it is ready. */
  tree: text('tree'),
  /** What lists show, as JSON. */
  summary: text('summary'),
  /** The finding that says why it could not be read, as JSON. */
  failure: text('failure'),
});

/** One row an item: the canonical JSON beside the columns that lists need. */
export const items = sqliteTable(
  'items',
  {
    packageId: text('package_id').notNull(),
    seq: integer('seq').notNull(),
    nodeId: text('node_id').notNull(),
    title: text('title').notNull(),
    stem: text('stem').notNull(),
    kinds: text('kinds').notNull(),
    points: real('points').notNull(),
    fingerprint: text('fingerprint').notNull(),
    category: text('category'),
    json: text('json').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.packageId, table.seq] }),
    index('items_fingerprint').on(table.fingerprint),
  ],
);

/** Work done apart from requests; survives a restart and is safe to run twice. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    kind: text('kind', { enum: ['read', 'forecast', 'send', 'compare'] }).notNull(),
    /** The package or transfer it works for. */
    subject: text('subject').notNull(),
    state: text('state', { enum: ['queued', 'running', 'done', 'failed', 'cancelled'] }).notNull(),
    step: text('step').notNull().default(''),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    failure: text('failure'),
    createdAt: integer('created_at').notNull(),
    startedAt: integer('started_at'),
    endedAt: integer('ended_at'),
    attempts: integer('attempts').notNull().default(0),
  },
  (table) => [index('jobs_state').on(table.state)],
);

export const transfers = sqliteTable('transfers', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  packageId: text('package_id').notNull(),
  target: text('target').notNull(),
  createdAt: integer('created_at').notNull(),
  /** What the target cannot carry of what is ticked, as JSON. */
  forecast: text('forecast'),
  /** What was written: a file of the store, its name, and the findings, as JSON. */
  sent: text('sent'),
  sentAt: integer('sent_at'),
  arrivedPackageId: text('arrived_package_id'),
  /** The comparison with both sides' rows, as JSON. */
  arrival: text('arrival'),
  comparedAt: integer('compared_at'),
});

/** What was ticked: one row a node of the source. */
export const ticks = sqliteTable(
  'ticks',
  {
    transferId: text('transfer_id').notNull(),
    kind: text('kind', { enum: ['quiz', 'bank', 'item', 'link'] }).notNull(),
    nodeId: text('node_id').notNull(),
  },
  (table) => [primaryKey({ columns: [table.transferId, table.kind, table.nodeId] })],
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
