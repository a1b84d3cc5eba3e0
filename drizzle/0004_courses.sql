CREATE TABLE `batch_pairs` (
	`batch_id` text NOT NULL,
	`at` integer NOT NULL,
	`source_course` text NOT NULL,
	`dest_course` text NOT NULL,
	`exception` text,
	`transfer_id` text,
	`state` text NOT NULL,
	`trouble` text,
	PRIMARY KEY(`batch_id`, `at`)
);
--> statement-breakpoint
CREATE TABLE `batches` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`created_at` integer NOT NULL,
	`plan` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `courses` (
	`id` text PRIMARY KEY NOT NULL,
	`system_id` text NOT NULL,
	`class_id` text NOT NULL,
	`listing` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `courses_system` ON `courses` (`system_id`);--> statement-breakpoint
CREATE TABLE `notices` (
	`id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`text` text NOT NULL,
	`href` text NOT NULL,
	`tone` text NOT NULL,
	`read` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE `snapshots` (
	`id` text PRIMARY KEY NOT NULL,
	`course_id` text NOT NULL,
	`package_id` text NOT NULL,
	`outline` text NOT NULL,
	`taken_at` integer NOT NULL,
	`purpose` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `snapshots_course` ON `snapshots` (`course_id`,`taken_at`);--> statement-breakpoint
CREATE TABLE `systems` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`address` text NOT NULL,
	`token` text NOT NULL,
	`about` text NOT NULL,
	`created_at` integer NOT NULL,
	`synced_at` integer,
	`trouble` text
);
--> statement-breakpoint
ALTER TABLE `packages` ADD `came_by` text DEFAULT 'file' NOT NULL;--> statement-breakpoint
ALTER TABLE `transfers` ADD `tally` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `source_course` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `dest_course` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `source_snapshot` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `dest_snapshot` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `back_snapshot` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `target_chosen` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `transfers` ADD `options` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `plan` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `overrides` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `transfers` ADD `run` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `decisions` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `transfers` ADD `batch_id` text;--> statement-breakpoint
UPDATE `transfers` SET `tally` = json_object('verdict', json_extract(`arrival`, '$.comparison.verdict'), 'counts', json_extract(`arrival`, '$.comparison.counts'), 'open', 0) WHERE `arrival` IS NOT NULL;
