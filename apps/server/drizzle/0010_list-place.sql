ALTER TABLE `build` ADD `place` varchar(12) DEFAULT 'zero' NOT NULL;--> statement-breakpoint
UPDATE `build` SET `place` = CASE WHEN `verdict_kind` <> 'waiting' THEN 'decide' WHEN `zero_state` = 'proved' THEN 'read' ELSE 'zero' END;--> statement-breakpoint
UPDATE `build` SET `summary_seq` = 0 WHERE `verdict_kind` = 'waiting' AND `zero_state` IN ('none', 'open');
