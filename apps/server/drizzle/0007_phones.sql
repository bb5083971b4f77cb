CREATE TABLE `pairing` (
	`id` char(36) NOT NULL,
	`builder_id` char(36) NOT NULL,
	`token_hash` char(64) NOT NULL,
	`place` varchar(200) NOT NULL,
	`until` datetime(3) NOT NULL,
	`secret_hash` char(64),
	`figure` char(2),
	`agent` varchar(200),
	`confirmed_at` datetime(3),
	`name` varchar(60),
	CONSTRAINT `pairing_id` PRIMARY KEY(`id`),
	CONSTRAINT `pairing_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `session` ADD `name` varchar(60);--> statement-breakpoint
ALTER TABLE `pairing` ADD CONSTRAINT `pairing_builder_id_builder_id_fk` FOREIGN KEY (`builder_id`) REFERENCES `builder`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `pairing_until` ON `pairing` (`until`);