import { useAppSelector } from '@/store/store';
import { Notice } from '@/ui/notice';

/** Says that what was to be recorded last was not, and why: nothing that the logbook would refuse later is kept as if it were good. */
export function Unwritten() {
  const reason = useAppSelector((state) => state.outbox.unwritable);
  if (reason === null) return null;
  return (
    <Notice
      kind="warning"
      message={`Not recorded: ${reason}.`}
      remedy="Correct it and record it again. What you have recorded before is safe."
    />
  );
}
