ALTER TABLE `commands` ADD `origin` text;--> statement-breakpoint
CREATE UNIQUE INDEX `commands_by_origin` ON `commands` (`reading_id`,`origin`);