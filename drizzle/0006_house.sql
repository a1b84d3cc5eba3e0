DROP TRIGGER `items_search_insert`;--> statement-breakpoint
DROP TRIGGER `items_search_delete`;--> statement-breakpoint
ALTER TABLE `items` RENAME COLUMN `package_id` TO `reading_id`;--> statement-breakpoint
ALTER TABLE `items` ADD `graded_by_hand` integer DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE `items` SET `graded_by_hand` = 1 WHERE `kinds` IN ('essay', 'upload', 'drawing');--> statement-breakpoint
CREATE TRIGGER items_search_insert AFTER INSERT ON items BEGIN
  INSERT INTO items_search(rowid, title, stem, category) VALUES (new.rowid, new.title, new.stem, new.category);
END;
--> statement-breakpoint
CREATE TRIGGER items_search_delete AFTER DELETE ON items BEGIN
  INSERT INTO items_search(items_search, rowid, title, stem, category) VALUES ('delete', old.rowid, old.title, old.stem, old.category);
END;
--> statement-breakpoint
ALTER TABLE `packages` ADD `reading_id` text;--> statement-breakpoint
ALTER TABLE `packages` ADD `reading_basis` text;--> statement-breakpoint
UPDATE `packages` SET `reading_id` = `id` WHERE `tree` IS NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `background` integer DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `jobs_subject` ON `jobs` (`subject`,`created_at`);--> statement-breakpoint
UPDATE `jobs` SET `state` = 'cancelled' WHERE `state` IN ('queued', 'running') AND `kind` IN ('forecast', 'compare', 'plan');--> statement-breakpoint
UPDATE `jobs` SET `kind` = 'plan' WHERE `kind` IN ('forecast', 'compare');--> statement-breakpoint
UPDATE `jobs` SET `kind` = 'send' WHERE `kind` = 'carry';--> statement-breakpoint
UPDATE `jobs` SET `kind` = 'snapshot' WHERE `kind` = 'fetch';--> statement-breakpoint
ALTER TABLE `transfers` DROP COLUMN `forecast`;--> statement-breakpoint
ALTER TABLE `transfers` RENAME COLUMN `run` TO `sending`;--> statement-breakpoint
UPDATE `transfers` SET `target_chosen` = 1 WHERE `dest_course` IS NULL;--> statement-breakpoint
UPDATE `snapshots` SET `purpose` = 'whole' WHERE `purpose` = 'look';
