CREATE TABLE `build` (
	`id` char(36) NOT NULL,
	`shop_id` char(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`summary_seq` int NOT NULL DEFAULT 0,
	`name` varchar(80) NOT NULL,
	`zero_state` varchar(12) NOT NULL DEFAULT 'none',
	`verdict_kind` varchar(16) NOT NULL DEFAULT 'waiting',
	`headline` varchar(255) NOT NULL DEFAULT '',
	`delta` decimal(9,6),
	CONSTRAINT `build_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `builder` (
	`id` char(36) NOT NULL,
	`shop_id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`sign_in_name` varchar(60) NOT NULL,
	`password_hash` varchar(255) NOT NULL,
	`role` enum('owner','builder') NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `builder_id` PRIMARY KEY(`id`),
	CONSTRAINT `builder_sign_in_name` UNIQUE(`sign_in_name`)
);
--> statement-breakpoint
CREATE TABLE `entry` (
	`id` char(36) NOT NULL,
	`build_id` char(36) NOT NULL,
	`seq` int NOT NULL,
	`kind` varchar(32) NOT NULL,
	`body` json NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`builder_id` char(36) NOT NULL,
	`posted_by` char(36) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `entry_id_build_id_pk` PRIMARY KEY(`id`,`build_id`),
	CONSTRAINT `entry_build_seq` UNIQUE(`build_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `session` (
	`token_hash` char(64) NOT NULL,
	`builder_id` char(36) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `session_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `setup` (
	`id` int NOT NULL,
	`code_hash` char(64) NOT NULL,
	CONSTRAINT `setup_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `shop` (
	`id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `shop_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `sign_in_attempt` (
	`key` varchar(255) NOT NULL,
	`points` int NOT NULL DEFAULT 0,
	`expire` bigint unsigned,
	CONSTRAINT `sign_in_attempt_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
ALTER TABLE `build` ADD CONSTRAINT `build_shop_id_shop_id_fk` FOREIGN KEY (`shop_id`) REFERENCES `shop`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `builder` ADD CONSTRAINT `builder_shop_id_shop_id_fk` FOREIGN KEY (`shop_id`) REFERENCES `shop`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entry` ADD CONSTRAINT `entry_build_id_build_id_fk` FOREIGN KEY (`build_id`) REFERENCES `build`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_builder_id_builder_id_fk` FOREIGN KEY (`builder_id`) REFERENCES `builder`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `build_shop` ON `build` (`shop_id`);--> statement-breakpoint
CREATE INDEX `builder_shop` ON `builder` (`shop_id`);--> statement-breakpoint
CREATE INDEX `session_expiry` ON `session` (`expires_at`);