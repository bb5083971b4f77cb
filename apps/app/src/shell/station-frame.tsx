import { TextLink } from '@/ui/text-link';
import { Link } from 'expo-router';
import { Activity, type ReactNode, useState } from 'react';
import { ScrollView, View, useWindowDimensions } from 'react-native';
import { ENGINE_WIDTH, EngineHere, PracticeBeside, PracticeTop, usePractice } from '@/practice/practice-frame';
import { SheetView } from '@/findings/sheet-view';
import { useRoomy, useWide } from '@/ui/layout';
import { Words } from '@/ui/words';
import { type Place, StationLine, StationRail, placeHref } from './station-line';
import { useStation } from '@/logbook/station';
import { useMeasuredCylinder } from '@/logbook/measured-cylinder';
import { AfarKey } from './afar-key';
import { AtEngine } from './at-engine';
import { CoverContext } from './covered';
import { PhotoKey } from './photo-key';
import { SyncSign } from './sync-sign';

interface StationFrameProps {
  readonly here: Place;
  readonly children: ReactNode;
}

/**
 * Where a station stands: on a phone under the line of stations, on a wide screen between the stations and the sheet. It stands at the same place of the tree
 * in both, so that a screen that is turned or zoomed takes nothing from it.
 */
export function StationFrame({ here, children }: StationFrameProps) {
  const wide = useWide();
  const [covered, setCovered] = useState(false);
  return (
    <>
      <AtEngine here={here} />
      <View className={wide ? 'flex-1 flex-row bg-ground' : 'flex-1 bg-ground'}>
        {wide ? <StationsBeside here={here} /> : <StationsAbove here={here} />}
        <View role="main" className={wide ? 'flex-1 px-[26px] pt-[22px]' : 'flex-1'}>
          {wide ? <BenchHead here={here} /> : null}
          <OrEngine>
            <CoverContext.Provider value={setCovered}>{children}</CoverContext.Provider>
          </OrEngine>
        </View>
        {wide ? <SheetBeside covered={covered} /> : null}
      </View>
    </>
  );
}

/** The station; on the phone of a practice, in turn with its engine. While that is shown the station is kept as it was left, and heeds no key. */
function OrEngine({ children }: Pick<StationFrameProps, 'children'>) {
  const wide = useWide();
  const { report } = useStation();
  const practice = usePractice(report.build.id);
  const { width } = useWindowDimensions();
  const engine = !wide && practice?.showing === 'engine' ? practice : null;
  return (
    <>
      {engine ? <EngineHere run={engine} report={report} width={width} /> : null}
      <Activity mode={engine ? 'hidden' : 'visible'}>{children}</Activity>
    </>
  );
}

/** "cyl 4 · trial 2" */
function useWhere(here: Place): string {
  const { report } = useStation();
  const cylinder = useMeasuredCylinder(report);
  return `cyl ${here === 'read' || here === 'trace' ? cylinder : 1} · trial ${report.trials.length || 1}`;
}

/** The head of a phone: the build, how it is kept, and the line of stations. */
function StationsAbove({ here }: Pick<StationFrameProps, 'here'>) {
  const { build, stations } = useStation().report;
  const where = useWhere(here);
  const practice = usePractice(build.id);
  const roomy = useRoomy();
  return (
    <>
      {practice ? (
        <PracticeTop run={practice} name={build.name} />
      ) : (
        <View role="banner" className="flex-row items-center justify-between gap-3 px-4">
          <Link
            href="/"
            aria-label={`‹ ${build.name}: back to the builds`}
            numberOfLines={1}
            className="min-h-[44px] min-w-0 shrink py-[10px] font-medium text-[16px] text-ink"
          >
            {`‹ ${build.name}`}
          </Link>
          <View className="max-w-[60%] shrink-0 flex-row items-center">
            <View className="shrink items-end">
              {roomy ? (
                <Words look="soft" className="leading-[17px]">
                  {where}
                </Words>
              ) : null}
              <SyncSign />
            </View>
            <PhotoKey buildId={build.id} here={here} />
            <AfarKey here={here} />
          </View>
        </View>
      )}
      <StationLine buildId={build.id} stations={stations} here={here} />
    </>
  );
}

/** The stations down the left of a wide screen. */
function StationsBeside({ here }: Pick<StationFrameProps, 'here'>) {
  const { build, stations } = useStation().report;
  return (
    <View className="w-[196px] border-r border-hairline pt-6">
      <View role="banner">
        <Link href="/" className="px-5 pb-5 font-bold text-[26px] text-ink">
          Yosoku
        </Link>
      </View>
      <StationRail buildId={build.id} stations={stations} here={here} />
    </View>
  );
}

/** What is measured, over the station of a wide screen, and where else that can be looked at. */
function BenchHead({ here }: Pick<StationFrameProps, 'here'>) {
  const { build } = useStation().report;
  const where = useWhere(here);
  const practice = usePractice(build.id);
  return (
    <View className="flex-row justify-between gap-4 pb-2">
      <View className="shrink">
        <Words look="heading" numberOfLines={2}>
          {build.name}
        </Words>
        <Words look="soft">{practice ? `Practice · ${where}` : where}</Words>
      </View>
      {practice ? (
        <TextLink href="/practice" small className="shrink-0 py-2">
          All exercises
        </TextLink>
      ) : (
        <View className="shrink-0 flex-row items-center gap-x-4 self-start">
          <AfarKey here={here} />
          <PhotoKey buildId={build.id} here={here} />
          <TextLink
            href={{ pathname: '/phone', params: { at: `/builds/${build.id}/${here}` } }}
            small
            testID="to-phone"
            className="py-2"
          >
            On a phone
          </TextLink>
          <TextLink href={`/builds/${build.id}/engine`} small className="py-2">
            The engine
          </TextLink>
        </View>
      )}
    </View>
  );
}

/** The sheet down the right of a wide screen; of a practice its engine too. @param covered what a check asks for blind is not shown */
function SheetBeside({ covered }: { readonly covered: boolean }) {
  const { report, write } = useStation();
  const { build } = report;
  const practice = usePractice(build.id);
  const voidEntry = (entry: string): void => void write('entry.voided', { voids: entry });
  const sheet = (
    <ScrollView className="flex-1" tabIndex={0} contentContainerStyle={{ padding: 20 }}>
      <SheetView report={report} onVoid={report.sign.closed ? null : voidEntry} covered={covered} />
    </ScrollView>
  );
  if (practice)
    return (
      <View
        role="complementary"
        aria-label="The practice engine"
        style={{ width: ENGINE_WIDTH }}
        className="border-l border-hairline"
      >
        <PracticeBeside run={practice} report={report} sheet={sheet} />
      </View>
    );
  return (
    <View role="complementary" aria-label="Sheet" className="w-[348px] border-l border-hairline">
      <View className="flex-row items-baseline justify-between gap-3 px-5 pt-6">
        <Words look="heading" level={2}>
          Sheet
        </Words>
        <TextLink href={placeHref(build.id, 'sheet')} replace testID="to-sheet-page" small className="py-1">
          Print or export
        </TextLink>
        <SyncSign />
      </View>
      {sheet}
    </View>
  );
}
