CREATE TABLE `bench_box` (
	`id` char(36) NOT NULL,
	`shop_id` char(36) NOT NULL,
	`name` varchar(24) NOT NULL,
	`key_hash` char(64) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `bench_box_id` PRIMARY KEY(`id`),
	CONSTRAINT `bench_box_name` UNIQUE(`shop_id`,`name`),
	CONSTRAINT `bench_box_key` UNIQUE(`key_hash`)
);
--> statement-breakpoint
CREATE TABLE `practice_score` (
	`id` char(36) NOT NULL,
	`builder_id` char(36) NOT NULL,
	`exercise` varchar(24) NOT NULL,
	`score` int NOT NULL,
	`hints` int NOT NULL,
	`done_at` datetime(3) NOT NULL,
	CONSTRAINT `practice_score_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `bench_box` ADD CONSTRAINT `bench_box_shop_id_shop_id_fk` FOREIGN KEY (`shop_id`) REFERENCES `shop`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `practice_score` ADD CONSTRAINT `practice_score_builder_id_builder_id_fk` FOREIGN KEY (`builder_id`) REFERENCES `builder`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `practice_score_builder` ON `practice_score` (`builder_id`);