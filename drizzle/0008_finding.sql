CREATE TABLE `containers` (
	`reading_id` text NOT NULL,
	`kind` text NOT NULL,
	`at` integer NOT NULL,
	`node_id` text NOT NULL,
	`title` text NOT NULL,
	`items` integer NOT NULL,
	PRIMARY KEY(`reading_id`, `kind`, `at`)
);
--> statement-breakpoint
CREATE TABLE `search_words` (
	`word` text PRIMARY KEY NOT NULL,
	`grams` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `batches` ADD `thrown_at` integer;--> statement-breakpoint
ALTER TABLE `items` ADD `key_text` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `items` ADD `says` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `items` ADD `keyed` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `packages` ADD `thrown_at` integer;--> statement-breakpoint
ALTER TABLE `packages` ADD `settled_at` integer;--> statement-breakpoint
CREATE INDEX `packages_reading` ON `packages` (`reading_id`);--> statement-breakpoint
ALTER TABLE `snapshots` ADD `thrown_at` integer;--> statement-breakpoint
ALTER TABLE `transfers` ADD `thrown_at` integer;--> statement-breakpoint
UPDATE `items` SET `says` = `title` || ' ' || `stem` || ' ' || coalesce(`category`, '');
--> statement-breakpoint
DROP TRIGGER items_search_insert;
--> statement-breakpoint
DROP TRIGGER items_search_delete;
--> statement-breakpoint
DROP TABLE items_search;
--> statement-breakpoint
CREATE VIRTUAL TABLE items_search USING fts5(says, keyed, content='items', tokenize='unicode61 remove_diacritics 2');
--> statement-breakpoint
CREATE TRIGGER items_search_insert AFTER INSERT ON items BEGIN
  INSERT INTO items_search(rowid, says, keyed) VALUES (new.rowid, new.says, new.keyed);
END;
--> statement-breakpoint
CREATE TRIGGER items_search_delete AFTER DELETE ON items BEGIN
  INSERT INTO items_search(items_search, rowid, says, keyed) VALUES ('delete', old.rowid, old.says, old.keyed);
END;
--> statement-breakpoint
INSERT INTO items_search(items_search) VALUES ('rebuild');
--> statement-breakpoint
CREATE VIRTUAL TABLE search_grams USING fts5(grams, content='search_words', detail=none, tokenize='unicode61 remove_diacritics 0');
--> statement-breakpoint
CREATE TRIGGER search_words_insert AFTER INSERT ON search_words BEGIN
  INSERT INTO search_grams(rowid, grams) VALUES (new.rowid, new.grams);
END;
