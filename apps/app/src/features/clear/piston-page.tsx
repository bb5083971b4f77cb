import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import {
  PISTON_COLUMNS,
  type PistonRow,
  USUAL_ANGLES,
  angleWords,
  parseAngles,
  pistonCsv,
  pistonTable,
  sourcesOf,
} from '@yosoku/core/report/piston-table';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { PAPERS, type Paper, openPdf } from '@/sheets/open-pdf';
import { fileNameOf, saveText } from '@/sheets/save-file';
import { useDraft } from '@/store/use-draft';
import { api } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

/** For the piston maker: where pistons and valves stand about overlap TDC, to look at, print, and take away. */
export function PistonPage() {
  const { report } = useStation();
  const { id, units, engine } = report.build;
  const { draft, change } = useDraft<'angles'>(`${id}/pistons`);
  const typed = draft.angles ?? USUAL_ANGLES.join(', ').replaceAll('-', '−');
  const parsed = parseAngles(typed);
  const rows = parsed.ok ? pistonTable(report, parsed.angles) : [];
  return (
    <StationBody footer={null}>
      <View className="gap-4 px-4 wide:px-0 pb-10 pt-4 wide:max-w-[760px]">
        <Words look="title" level={1}>
          For the piston maker
        </Words>
        <Words look="soft">
          Where piston and valves stand about the TDC between exhaust and intake, as the cam sits now. Deck height and
          gasket are not in it.
        </Words>
        <TextField
          testID="piston-angles"
          label="Crank degrees, before TDC with a minus"
          value={typed}
          onChange={(angles) => change({ angles })}
          error={parsed.ok ? undefined : parsed.message}
        />
        {engine.stroke === null || engine.rod === null ? (
          <Words look="soft">
            Stroke and rod are not known: give them with the engine, and the piston is worked out.
          </Words>
        ) : null}
        {rows.length > 0 ? <PistonRows rows={rows} units={units} /> : null}
        {rows.length > 0 ? <Words look="soft">{sourcesOf(rows)}</Words> : null}
        <TakeAway report={report} typed={typed} />
      </View>
    </StationBody>
  );
}

/** The sheet for somebody else, on paper and as a table. */
function TakeAway({ report, typed }: { readonly report: Report; readonly typed: string }) {
  const { id, name, practice } = report.build;
  const [trouble, setTrouble] = useState<string | null>(null);
  const parsed = parseAngles(typed);
  const save = async (): Promise<void> => {
    const { unparse } = (await import('papaparse')).default;
    const csv = unparse({
      fields: [...PISTON_COLUMNS],
      data: pistonCsv(parsed.ok ? pistonTable(report, parsed.angles) : []),
    });
    saveText(`${fileNameOf(name)}-pistons.csv`, `${csv}\r\n`, 'text/csv');
  };
  const print = async (paper: Paper): Promise<void> => {
    setTrouble(null);
    setTrouble(
      await openPdf(api.builds[':id']['pistons.pdf'].$url({ param: { id }, query: { paper, angles: typed } })),
    );
  };
  return (
    <View>
      <View className="flex-row flex-wrap gap-x-6">
        {(practice ? [] : PAPERS).map(({ paper, label }) => (
          <QuietButton
            key={paper}
            testID={`pistons-${paper}`}
            label={label}
            disabled={!parsed.ok}
            onPress={() => void print(paper)}
          />
        ))}
        <QuietButton testID="pistons-csv" label="As CSV" disabled={!parsed.ok} onPress={() => void save()} />
      </View>
      {trouble ? (
        <Words role="alert" tone="danger" testID="print-trouble">
          {trouble}
        </Words>
      ) : null}
    </View>
  );
}

/** Four columns, pixels; where there is less room the table is moved sideways. */
const TABLE = 300;

/** One line for each angle; a narrow screen takes lobe and valve under one another. */
function PistonRows({ rows, units }: { readonly rows: readonly PistonRow[]; readonly units: LengthUnit }) {
  const length = (mm: number | null | undefined): string => (mm == null ? '–' : formatComputedLength(mm, units));
  return (
    <ScrollView horizontal contentContainerStyle={{ flexGrow: 1 }}>
      <View
        role="table"
        aria-label="Piston and valves"
        testID="piston-rows"
        className="grow"
        style={{ minWidth: TABLE }}
      >
        <View className="flex-row gap-2 border-b border-line pb-1">
          {(['Crank', 'Piston', 'Intake', 'Exhaust'] as const).map((title) => (
            <Words
              key={title}
              look="label"
              tone={title === 'Intake' ? 'intake' : title === 'Exhaust' ? 'exhaust' : 'ink'}
              className="flex-1"
            >
              {title}
            </Words>
          ))}
        </View>
        {rows.map(({ at, piston, intake, exhaust }) => (
          <View key={at} className="flex-row gap-2 border-b border-hairline py-2">
            <Words look="label" className="flex-1">
              {angleWords(at)}
            </Words>
            <Words look="figure" className="flex-1">
              {length(piston)}
            </Words>
            {[intake, exhaust].map((lift, which) => (
              <View key={which} className="flex-1">
                <Words look="figure">{length(lift?.lobe)}</Words>
                {lift?.valve == null ? null : <Words look="soft">{`valve ${length(lift.valve)}`}</Words>}
              </View>
            ))}
          </View>
        ))}
      </View>
    </ScrollView>
  );
}
