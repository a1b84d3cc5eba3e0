CREATE TABLE `arrival_rows` (
	`seam_id` text NOT NULL,
	`at` integer NOT NULL,
	`state` text NOT NULL,
	`source` text,
	`arrived` text,
	`purposed` integer DEFAULT false NOT NULL,
	`row` text NOT NULL,
	PRIMARY KEY(`seam_id`, `at`)
);
--> statement-breakpoint
ALTER TABLE `items` ADD `files` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `items` ADD `short_key` text;--> statement-breakpoint
ALTER TABLE `readings` ADD `first` text;--> statement-breakpoint
ALTER TABLE `transfers` ADD `seam_id` text;--> statement-breakpoint
UPDATE `items` SET `files` = '{"$v":1,"$list":' || json_extract(`json`, '$.files') || '}' WHERE json_array_length(`json`, '$.files') > 0;
