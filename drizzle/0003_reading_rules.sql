CREATE TABLE `reading_rules` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`origin` text NOT NULL,
	`label` text NOT NULL,
	`means` text NOT NULL,
	`created_at` integer NOT NULL
);
