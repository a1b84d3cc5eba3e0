CREATE TABLE `made` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`title` text NOT NULL,
	`draft` text NOT NULL,
	`version` integer DEFAULT 0 NOT NULL,
	`package_id` text,
	`package_version` integer,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`thrown_at` integer
);
--> statement-breakpoint
CREATE TABLE `taken_items` (
	`made_id` text NOT NULL,
	`place` text NOT NULL,
	`item` text NOT NULL,
	`package_id` text NOT NULL,
	`print` text NOT NULL,
	`json` text NOT NULL,
	PRIMARY KEY(`made_id`, `place`, `item`)
);
--> statement-breakpoint
CREATE INDEX `taken_items_place` ON `taken_items` (`place`,`item`);