CREATE TABLE `letterhead` (
	`shop_id` char(36) NOT NULL,
	`lines` varchar(400) NOT NULL,
	`logo_kind` enum('svg','png'),
	`logo` mediumblob,
	`logo_width` double,
	`logo_height` double,
	CONSTRAINT `letterhead_shop_id` PRIMARY KEY(`shop_id`)
);
--> statement-breakpoint
ALTER TABLE `letterhead` ADD CONSTRAINT `letterhead_shop_id_shop_id_fk` FOREIGN KEY (`shop_id`) REFERENCES `shop`(`id`) ON DELETE no action ON UPDATE no action;