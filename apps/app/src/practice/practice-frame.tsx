import { Link } from 'expo-router';
import { type ReactNode, Suspense, lazy } from 'react';
import { Pressable, Text, View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { useShortcuts } from '@/ui/use-shortcuts';
import { type PracticeRun, looked } from '@/store/practice-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Words } from '@/ui/words';

const Engine = lazy(async () => ({ default: (await import('./all-practice')).PracticeEngine }));

/** The practice that a logbook belongs to; null for a build. */
export const usePractice = (buildId: string): PracticeRun | null =>
  useAppSelector((state) => state.practice.runs[buildId] ?? null);

interface EngineHereProps {
  readonly run: PracticeRun;
  readonly report: Report;
  readonly width: number;
}

/** The practice engine, fetched when the first practice is opened. */
export const EngineHere = (props: EngineHereProps) => (
  <Suspense fallback={<View className="flex-1" />}>
    <Engine {...props} />
  </Suspense>
);

const VIEWS = [
  { value: 'engine', label: 'Engine' },
  { value: 'station', label: 'Station' },
] as const;

/** The top line of a practice on a phone: whose it is, and the change from engine to station. */
export function PracticeTop({ run, name }: { readonly run: PracticeRun; readonly name: string }) {
  const dispatch = useAppDispatch();
  const look = (at: PracticeRun['showing']): void => void dispatch(looked({ id: run.id, at }));
  useShortcuts({ e: () => look(run.showing === 'engine' ? 'station' : 'engine') });
  return (
    <View role="banner" className="flex-row items-center justify-between gap-3 pl-4">
      <Link
        href="/practice"
        aria-label={`‹ ${name}: back to practice`}
        numberOfLines={1}
        className="min-h-[44px] min-w-0 shrink py-[10px] font-medium text-[16px] text-ink"
      >
        {`‹ ${name}`}
      </Link>
      <View role="tablist" aria-label="What is shown" className="flex-row">
        {VIEWS.map(({ value, label }) => {
          const chosen = run.showing === value;
          return (
            <Pressable
              key={value}
              role="tab"
              testID={`show-${value}`}
              aria-selected={chosen}
              onPress={() => look(value)}
              className={`min-h-[46px] justify-center px-4 ${chosen ? 'bg-brass' : ''}`}
            >
              <Text className={`font-bold text-[17px] ${chosen ? 'text-onBrass' : 'text-brass'}`}>{label}</Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

/** What stands beside the stations of a practice on a wide screen. */
export function PracticeBeside({
  run,
  report,
  sheet,
}: {
  readonly run: PracticeRun;
  readonly report: Report;
  readonly sheet: ReactNode;
}) {
  const dispatch = useAppDispatch();
  const look = (at: PracticeRun['showing']): void => void dispatch(looked({ id: run.id, at }));
  useShortcuts({ e: () => look(run.showing === 'engine' ? 'station' : 'engine') });
  return (
    <View className="flex-1">
      <View className="flex-row items-center justify-between pl-5 pr-2 pt-4">
        <Words look="heading" level={2}>
          {run.showing === 'engine' ? 'The practice engine' : 'Sheet'}
        </Words>
        <Pressable
          role="button"
          testID="show-other"
          onPress={() => look(run.showing === 'engine' ? 'station' : 'engine')}
          className="min-h-[44px] justify-center px-3 active:opacity-70"
        >
          <Text className="font-medium text-[16px] text-brass">
            {run.showing === 'engine' ? 'The sheet' : 'The engine'}
          </Text>
        </Pressable>
      </View>
      {run.showing === 'engine' ? <EngineHere run={run} report={report} width={ENGINE_WIDTH} /> : sheet}
    </View>
  );
}

/** Room for the practice engine on a wide screen, pixels: as much as the sheet has. */
export const ENGINE_WIDTH = 348;
