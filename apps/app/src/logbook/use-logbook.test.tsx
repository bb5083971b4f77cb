import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { ReadingPad } from '@/forms/reading-pad';
import { useReadingEntry } from '@/forms/use-reading-entry';
import { StationBody } from '@/shell/station-body';
import { useStation } from '@/logbook/station';
import { openStation } from '@/testing/open-station';

/** A pad whose readings no logbook takes: they name no pass. */
function Mistaken() {
  const { report, write, undo } = useStation();
  const entry = useReadingEntry(`${report.build.id}/mistaken`, 'zero', 0);
  const record = (wheel: Parameters<Parameters<typeof ReadingPad>[0]['onRecord']>[0]): void =>
    void write('zero.reading', { zero: report.zero.id ?? '', setting: null, pass: 'none', side: 'before', wheel });
  return (
    <StationBody
      footer={
        <ReadingPad
          entry={entry}
          rotation={report.build.engine.rotation}
          recordLabel="Record"
          onRecord={record}
          onUndo={undo}
          width={390}
        />
      }
    >
      {null}
    </StationBody>
  );
}

test('what no logbook would take is not written, is said, and what was typed stays', async () => {
  const here = await openStation('zero', Mistaken, book().entries);
  const before = here.entries().length;
  await expect(here.reads('21', 'before')).rejects.toThrow(/pass: expected an id in UUID form/);
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/Not recorded: body\.pass: expected an id in UUID form\./);
  // Pressed once more it is tried with the same figures: they have not been cleared.
  await expect(here.press('record')).rejects.toThrow(/UUID/);
  expect(screen.queryByTestId('reading-trouble')).toBeNull();
});
