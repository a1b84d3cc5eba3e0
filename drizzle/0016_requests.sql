CREATE TABLE `requests` (
	`key` text PRIMARY KEY NOT NULL,
	`asked` text NOT NULL,
	`at` integer NOT NULL,
	`status` integer,
	`body` text
);
--> statement-breakpoint
CREATE INDEX `requests_at` ON `requests` (`at`);