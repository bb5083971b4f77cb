import Undo2 from 'lucide-react-native/icons/undo-2';
import { Pressable, View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { useTheme } from '@/ui/theme';
import { type Tone, Words } from '@/ui/words';
import { PhotoPicture } from '@/photos/photo-picture';

type Row = Report['sheet'][number]['rows'][number];

interface SheetViewProps {
  readonly report: Report;
  /** Takes an entry out of the calculations; null where the sheet is only read. */
  readonly onVoid: ((entry: string) => void) | null;
  /** Is what was read at Zero covered? */
  readonly covered?: boolean;
}

/** The running record, as on the clipboard: what was written down, struck through where it was undone, and what follows. */
export function SheetView({ report, onVoid, covered = false }: SheetViewProps) {
  if (report.sheet.length === 0)
    return <Words look="soft">Nothing recorded yet. Begin at Zero: the first reading will stand here.</Words>;
  return (
    <View testID="sheet" className="gap-5">
      {report.sheet.map((section) => (
        <View key={section.title}>
          <Words look="heading" level={2} className="pb-1">
            {section.title}
          </Words>
          {covered && section.title === 'Zero' ? (
            <Words look="soft">Covered until the closing check is recorded.</Words>
          ) : (
            section.rows.map((row, at) => (
              <SheetLine key={row.entry ?? at} buildId={report.build.id} row={row} onVoid={onVoid} />
            ))
          )}
        </View>
      ))}
    </View>
  );
}

const TONE: Readonly<Record<Row['standing'], Tone>> = {
  counts: 'ink',
  voided: 'soft',
  aside: 'soft',
  result: 'brass',
  card: 'soft',
};

interface SheetLineProps {
  readonly buildId: string;
  readonly row: Row;
  readonly onVoid: ((entry: string) => void) | null;
}

/** Room for a photo on the sheet, pixels. */
const PHOTO = { width: 220, height: 140 };

function SheetLine({ buildId, row, onVoid }: SheetLineProps) {
  const { soft } = useTheme();
  const { entry } = row;
  const tone = TONE[row.standing];
  const struck = row.standing === 'voided' ? 'line-through' : '';
  const canVoid = onVoid && entry !== null && row.standing !== 'voided';
  return (
    <View className="min-h-[38px] justify-center border-b border-hairline py-1">
      <View className="flex-row items-center gap-2">
        <Words look={row.standing === 'result' ? 'label' : 'body'} tone={tone} className={`shrink grow ${struck}`}>
          {row.label}
        </Words>
        <Words look="figure" tone={tone} className={struck}>
          {row.value}
        </Words>
        {canVoid ? (
          <Pressable
            role="button"
            aria-label={`Undo ${row.label} ${row.value}`}
            onPress={() => onVoid(entry)}
            className="h-[44px] w-[44px] items-center wide:h-[30px] justify-center active:bg-raised"
          >
            <Undo2 size={17} color={soft} />
          </Pressable>
        ) : null}
      </View>
      {row.photo ? <PhotoPicture buildId={buildId} photo={row.photo} {...PHOTO} /> : null}
      {row.note ? <Words look="soft">{row.standing === 'aside' ? `Left out. ${row.note}` : row.note}</Words> : null}
    </View>
  );
}
