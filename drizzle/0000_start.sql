CREATE TABLE `commands` (
	`reading_id` integer NOT NULL,
	`seq` integer NOT NULL,
	`command` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL,
	PRIMARY KEY(`reading_id`, `seq`),
	FOREIGN KEY (`reading_id`) REFERENCES `readings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `pieces` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`title` text NOT NULL,
	`composer` text NOT NULL,
	`instrument` text NOT NULL,
	`bars` integer NOT NULL,
	`source_hash` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL,
	FOREIGN KEY (`source_hash`) REFERENCES `sources`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pieces_by_source` ON `pieces` (`source_hash`);--> statement-breakpoint
CREATE TABLE `readings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`piece_id` integer NOT NULL,
	`name` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL,
	FOREIGN KEY (`piece_id`) REFERENCES `pieces`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `readings_by_piece` ON `readings` (`piece_id`);--> statement-breakpoint
CREATE TABLE `sources` (
	`hash` text PRIMARY KEY NOT NULL,
	`file_name` text NOT NULL,
	`format` text NOT NULL,
	`bytes` blob NOT NULL,
	`document` text NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL
);
--> statement-breakpoint
CREATE TABLE `studies` (
	`source_hash` text NOT NULL,
	`engine` text NOT NULL,
	`facts` text NOT NULL,
	`survey` text NOT NULL,
	PRIMARY KEY(`source_hash`, `engine`),
	FOREIGN KEY (`source_hash`) REFERENCES `sources`(`hash`) ON UPDATE no action ON DELETE cascade
);
