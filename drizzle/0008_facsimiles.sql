CREATE TABLE `facsimile_pages` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`writing_id` integer NOT NULL,
	`mime` text NOT NULL,
	`bytes` blob NOT NULL,
	`cuts` text NOT NULL,
	FOREIGN KEY (`writing_id`) REFERENCES `writings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `facsimile_pages_by_writing` ON `facsimile_pages` (`writing_id`);