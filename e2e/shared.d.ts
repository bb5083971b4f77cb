/** Stops what all files of a run share. */
declare var stopShared: (() => Promise<void>) | undefined;
