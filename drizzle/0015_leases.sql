CREATE TABLE `news` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job` text,
	`changed` text
);
--> statement-breakpoint
CREATE TABLE `processes` (
	`id` text PRIMARY KEY NOT NULL,
	`host` text NOT NULL,
	`pid` integer NOT NULL,
	`lease_until` integer NOT NULL
);
--> statement-breakpoint
DROP INDEX `jobs_state`;--> statement-breakpoint
DROP INDEX `jobs_subject`;--> statement-breakpoint
ALTER TABLE `jobs` ADD `seq` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `turn` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `owner` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `again` integer DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE `jobs` SET `seq` = rowid;--> statement-breakpoint
UPDATE `jobs` SET `turn` = (SELECT `dest_course` FROM `transfers` WHERE `transfers`.`id` = `jobs`.`subject`) WHERE `kind` IN ('send', 'undo');--> statement-breakpoint
UPDATE `jobs` SET `state` = 'cancelled', `ended_at` = `created_at` WHERE `state` IN ('queued', 'running') AND rowid NOT IN (SELECT min(rowid) FROM `jobs` WHERE `state` IN ('queued', 'running') GROUP BY `kind`, `subject`);--> statement-breakpoint
CREATE INDEX `jobs_seq` ON `jobs` (`seq`);--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_open` ON `jobs` (`kind`,`subject`) WHERE state IN ('queued', 'running');--> statement-breakpoint
CREATE INDEX `jobs_state` ON `jobs` (`state`,`seq`);--> statement-breakpoint
CREATE INDEX `jobs_subject` ON `jobs` (`subject`,`seq`);