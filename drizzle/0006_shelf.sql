ALTER TABLE `pieces` ADD `shelf_group` text;--> statement-breakpoint
ALTER TABLE `pieces` ADD `opened_at` integer;--> statement-breakpoint
ALTER TABLE `pieces` ADD `period` text;