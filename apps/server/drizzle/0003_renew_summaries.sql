-- Verdicts are made in another way and in other words: what lists show of them is worked out anew when they are next asked for.
UPDATE `build` SET `summary_seq` = 0;
