CREATE TABLE `first_pictures` (
	`source_hash` text NOT NULL,
	`line` text NOT NULL,
	`engine` text NOT NULL,
	`svg` text NOT NULL,
	PRIMARY KEY(`source_hash`, `line`),
	FOREIGN KEY (`source_hash`) REFERENCES `sources`(`hash`) ON UPDATE no action ON DELETE cascade
);
