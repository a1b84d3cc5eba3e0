CREATE TABLE `own_rubrics` (
	`id` text PRIMARY KEY NOT NULL,
	`rubric` text NOT NULL,
	`from_place` text,
	`from_rubric` text,
	`basis` text,
	`follows` integer DEFAULT false NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `table_layouts` (
	`id` text PRIMARY KEY NOT NULL,
	`header` text NOT NULL,
	`roles` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `table_layouts_header_unique` ON `table_layouts` (`header`);