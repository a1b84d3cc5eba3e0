CREATE TABLE `edit_steps` (
	`id` text PRIMARY KEY NOT NULL,
	`package_id` text NOT NULL,
	`at` integer NOT NULL,
	`made_at` integer NOT NULL,
	`way` text NOT NULL,
	`edits` text NOT NULL,
	`refused` text,
	`takes_back` text,
	`undone_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `edit_steps_package` ON `edit_steps` (`package_id`,`at`);--> statement-breakpoint
ALTER TABLE `packages` ADD `put_right` text;