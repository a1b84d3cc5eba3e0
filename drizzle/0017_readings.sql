CREATE TABLE `readings` (
	`id` text PRIMARY KEY NOT NULL,
	`package_id` text NOT NULL,
	`job_id` text,
	`tree` text NOT NULL,
	`families` text,
	`put_right` text
);
--> statement-breakpoint
CREATE INDEX `readings_package` ON `readings` (`package_id`);--> statement-breakpoint
ALTER TABLE `packages` ADD `changed` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `packages` SET `changed` = coalesce(json_array_length(`put_right`, '$.edited'), 0);--> statement-breakpoint
INSERT INTO `readings` (`id`, `package_id`, `tree`, `families`, `put_right`) SELECT `reading_id`, `id`, `tree`, `families`, `put_right` FROM `packages` WHERE `reading_id` IS NOT NULL AND `tree` IS NOT NULL;--> statement-breakpoint
DELETE FROM `items` WHERE `reading_id` NOT IN (SELECT `id` FROM `readings`);--> statement-breakpoint
DELETE FROM `containers` WHERE `reading_id` NOT IN (SELECT `id` FROM `readings`);
