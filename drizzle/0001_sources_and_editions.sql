CREATE TABLE `compared_sources` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`piece_id` integer NOT NULL,
	`source_hash` text NOT NULL,
	`name` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL,
	FOREIGN KEY (`piece_id`) REFERENCES `pieces`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`source_hash`) REFERENCES `sources`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `compared_sources_by_piece` ON `compared_sources` (`piece_id`);--> statement-breakpoint
CREATE TABLE `editions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`piece_id` integer NOT NULL,
	`number` integer NOT NULL,
	`reading_name` text NOT NULL,
	`note` text NOT NULL,
	`content` text NOT NULL,
	`pdf` blob NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL,
	FOREIGN KEY (`piece_id`) REFERENCES `pieces`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `editions_by_number` ON `editions` (`piece_id`,`number`);--> statement-breakpoint
ALTER TABLE `pieces` ADD `source_name` text DEFAULT 'The source' NOT NULL;