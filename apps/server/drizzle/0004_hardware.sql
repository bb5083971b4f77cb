CREATE TABLE `hardware` (
	`id` char(36) NOT NULL,
	`shop_id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`body` json NOT NULL,
	`retired` boolean NOT NULL DEFAULT false,
	`changed_at` datetime(3) NOT NULL,
	CONSTRAINT `hardware_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `hardware_move` (
	`build_id` char(36) NOT NULL,
	`place` int NOT NULL,
	`hardware_id` char(36) NOT NULL,
	`settings` json NOT NULL,
	`gave` decimal(9,6) NOT NULL,
	`standard` decimal(9,6) NOT NULL,
	CONSTRAINT `hardware_move_build_id_place_pk` PRIMARY KEY(`build_id`,`place`)
);
--> statement-breakpoint
ALTER TABLE `build` ADD `builders` json;--> statement-breakpoint
ALTER TABLE `hardware` ADD CONSTRAINT `hardware_shop_id_shop_id_fk` FOREIGN KEY (`shop_id`) REFERENCES `shop`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `hardware_move` ADD CONSTRAINT `hardware_move_build_id_build_id_fk` FOREIGN KEY (`build_id`) REFERENCES `build`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `hardware_shop` ON `hardware` (`shop_id`);--> statement-breakpoint
CREATE INDEX `hardware_move_piece` ON `hardware_move` (`hardware_id`);