CREATE TABLE `claims` (
	`source_hash` text NOT NULL,
	`engine` text NOT NULL,
	`until` integer NOT NULL,
	PRIMARY KEY(`source_hash`, `engine`)
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`token` text PRIMARY KEY NOT NULL,
	`person` text DEFAULT 'owner' NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `snapshots` (
	`reading_id` integer PRIMARY KEY NOT NULL,
	`seq` integer NOT NULL,
	`engine` text NOT NULL,
	`state` text NOT NULL,
	FOREIGN KEY (`reading_id`) REFERENCES `readings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `pieces` ADD `removed_at` integer;--> statement-breakpoint
ALTER TABLE `sources` ADD `parts` integer;