ALTER TABLE `packages` DROP COLUMN `tree`;--> statement-breakpoint
ALTER TABLE `packages` DROP COLUMN `families`;--> statement-breakpoint
ALTER TABLE `packages` DROP COLUMN `put_right`;