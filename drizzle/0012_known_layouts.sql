CREATE TABLE `known_layouts` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`looks` text NOT NULL,
	`layout` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `known_layouts_looks` ON `known_layouts` (`kind`,`looks`);--> statement-breakpoint
INSERT INTO `known_layouts` (`id`, `kind`, `name`, `looks`, `layout`, `created_at`)
  SELECT `id`, 'rubrics', substr(replace(replace(replace(`header`, '["', ''), '"]', ''), '","', ', '), 1, 200), `header`, `roles`, `created_at` FROM `table_layouts`;
