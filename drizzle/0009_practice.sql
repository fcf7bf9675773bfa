CREATE TABLE `plans` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`content` text NOT NULL,
	`owner` text DEFAULT 'owner' NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `plans_by_key` ON `plans` (`owner`,`key`);--> statement-breakpoint
CREATE TABLE `practice_log` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`plan_key` text NOT NULL,
	`kind` text NOT NULL,
	`content` text NOT NULL,
	`owner` text DEFAULT 'owner' NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `practice_log_by_key` ON `practice_log` (`owner`,`key`);--> statement-breakpoint
CREATE INDEX `practice_log_by_plan` ON `practice_log` (`owner`,`plan_key`);--> statement-breakpoint
CREATE TABLE `sheets` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`document` text NOT NULL,
	`owner` text DEFAULT 'owner' NOT NULL,
	`created_at` integer DEFAULT (unixepoch()) NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sheets_by_key` ON `sheets` (`owner`,`key`);