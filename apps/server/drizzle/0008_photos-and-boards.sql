CREATE TABLE `board` (
	`id` char(36) NOT NULL,
	`shop_id` char(36) NOT NULL,
	`name` varchar(40) NOT NULL,
	`token_hash` char(64) NOT NULL,
	`build_id` char(36),
	`created_at` datetime(3) NOT NULL,
	`seen_at` datetime(3),
	CONSTRAINT `board_id` PRIMARY KEY(`id`),
	CONSTRAINT `board_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `photo` (
	`build_id` char(36) NOT NULL,
	`picture` char(64) NOT NULL,
	`bytes` mediumblob NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `photo_build_id_picture_pk` PRIMARY KEY(`build_id`,`picture`)
);
--> statement-breakpoint
ALTER TABLE `board` ADD CONSTRAINT `board_shop_id_shop_id_fk` FOREIGN KEY (`shop_id`) REFERENCES `shop`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `board` ADD CONSTRAINT `board_build_id_build_id_fk` FOREIGN KEY (`build_id`) REFERENCES `build`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photo` ADD CONSTRAINT `photo_build_id_build_id_fk` FOREIGN KEY (`build_id`) REFERENCES `build`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `board_shop` ON `board` (`shop_id`);