CREATE TABLE `known_device` (
	`token_hash` char(64) NOT NULL,
	`builder_id` char(36) NOT NULL,
	`used_at` datetime(3) NOT NULL,
	CONSTRAINT `known_device_token_hash_builder_id_pk` PRIMARY KEY(`token_hash`,`builder_id`)
);
--> statement-breakpoint
ALTER TABLE `builder` ADD `ended_at` datetime(3);--> statement-breakpoint
ALTER TABLE `builder` ADD `reset_hash` char(64);--> statement-breakpoint
ALTER TABLE `builder` ADD `reset_until` datetime(3);--> statement-breakpoint
ALTER TABLE `session` ADD `created_at` datetime(3);--> statement-breakpoint
ALTER TABLE `session` ADD `seen_at` datetime(3);--> statement-breakpoint
ALTER TABLE `session` ADD `agent` varchar(200);--> statement-breakpoint
ALTER TABLE `known_device` ADD CONSTRAINT `known_device_builder_id_builder_id_fk` FOREIGN KEY (`builder_id`) REFERENCES `builder`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `session_builder` ON `session` (`builder_id`);