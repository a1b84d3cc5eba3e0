CREATE TABLE `items` (
	`package_id` text NOT NULL,
	`seq` integer NOT NULL,
	`node_id` text NOT NULL,
	`title` text NOT NULL,
	`stem` text NOT NULL,
	`kinds` text NOT NULL,
	`points` real NOT NULL,
	`fingerprint` text NOT NULL,
	`category` text,
	`json` text NOT NULL,
	PRIMARY KEY(`package_id`, `seq`)
);
--> statement-breakpoint
CREATE INDEX `items_fingerprint` ON `items` (`fingerprint`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`subject` text NOT NULL,
	`state` text NOT NULL,
	`step` text DEFAULT '' NOT NULL,
	`done` integer DEFAULT 0 NOT NULL,
	`total` integer DEFAULT 0 NOT NULL,
	`failure` text,
	`created_at` integer NOT NULL,
	`started_at` integer,
	`ended_at` integer,
	`attempts` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE INDEX `jobs_state` ON `jobs` (`state`);--> statement-breakpoint
CREATE TABLE `packages` (
	`id` text PRIMARY KEY NOT NULL,
	`sha256` text NOT NULL,
	`name` text NOT NULL,
	`bytes` integer NOT NULL,
	`brought_at` integer NOT NULL,
	`state` text NOT NULL,
	`tree` text,
	`summary` text,
	`failure` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `packages_sha256_unique` ON `packages` (`sha256`);--> statement-breakpoint
CREATE TABLE `ticks` (
	`transfer_id` text NOT NULL,
	`kind` text NOT NULL,
	`node_id` text NOT NULL,
	PRIMARY KEY(`transfer_id`, `kind`, `node_id`)
);
--> statement-breakpoint
CREATE TABLE `transfers` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`package_id` text NOT NULL,
	`target` text NOT NULL,
	`created_at` integer NOT NULL,
	`sent` text,
	`sent_at` integer,
	`arrived_package_id` text,
	`arrival` text,
	`compared_at` integer
);
