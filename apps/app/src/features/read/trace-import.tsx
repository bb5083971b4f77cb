import { TextInput, View } from 'react-native';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { PrimaryButton } from '@/ui/buttons';
import { FileField } from '@/ui/file-field';
import { Notice } from '@/ui/notice';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { Preview } from './trace-preview';
import { HowItIsRead } from './trace-columns';
import { type Import, useTraceImport } from './use-trace-import';

/** A trace from a file or the clipboard: looked at first, then kept whole, or not at all. */
export function TraceImport() {
  const { build } = useStation().report;
  const taken = useTraceImport();
  const { points, trouble } = taken;
  return (
    <StationBody
      footer={
        points?.ok ? (
          <PrimaryButton
            testID="trace-keep"
            label={`Save the trace, ${points.points.length} points`}
            onPress={taken.keep}
          />
        ) : null
      }
    >
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-6 pt-4">
        <Words look="title" level={1}>
          A trace from a file, or pasted
        </Words>
        <Words look="body">
          Two columns at least: angle and lift. Crank or cam degrees, millimetres, inches or thou; it may start
          anywhere.
        </Words>
        <PickOrPaste taken={taken} />
        {trouble ? <Notice kind="danger" testID="trace-trouble" message={trouble} /> : null}
        {points && !points.ok ? (
          <Notice
            kind="danger"
            testID="trace-trouble"
            message={points.problem.message}
            remedy={points.problem.remedy}
          />
        ) : null}
        <HowItIsRead taken={taken} banked={build.engine.secondBank !== null} />
        <Preview taken={taken} />
      </View>
    </StationBody>
  );
}

function PickOrPaste({ taken: { given, typed, open, paste } }: { readonly taken: Import }) {
  const theme = useTheme();
  return (
    <>
      <View className="flex-row flex-wrap items-center gap-x-4">
        <FileField
          testID="trace-file"
          label="Pick a file"
          accept=".csv,.txt,.tsv,text/*"
          onFile={(file) => void open(file)}
        />
        {given?.name ? <Words look="soft">{given.name}</Words> : null}
      </View>
      <View className="gap-1">
        <Words look="label" aria-hidden>
          Or paste it here
        </Words>
        <TextInput
          testID="trace-paste"
          aria-label="Paste the trace here"
          multiline
          value={typed}
          onChangeText={paste}
          placeholder={'-20, 0.000\n-16, 0.002\n-12, 0.011'}
          placeholderTextColor={theme.soft}
          className="h-[110px] border-b-2 border-line bg-raised px-3 py-2 font-figures text-[16px] text-ink"
        />
      </View>
    </>
  );
}
