ALTER TABLE `commands` ADD `author` text DEFAULT 'owner' NOT NULL;--> statement-breakpoint
ALTER TABLE `editions` ADD `author` text DEFAULT 'owner' NOT NULL;--> statement-breakpoint
ALTER TABLE `pieces` ADD `owner` text DEFAULT 'owner' NOT NULL;--> statement-breakpoint
CREATE INDEX `pieces_by_owner` ON `pieces` (`owner`);--> statement-breakpoint
ALTER TABLE `readings` ADD `author` text DEFAULT 'owner' NOT NULL;