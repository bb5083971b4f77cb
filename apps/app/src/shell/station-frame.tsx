import { TextLink } from '@/ui/text-link';
import { Link } from 'expo-router';
import { type ReactNode, useState } from 'react';
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

/** Where a station stands: on a phone under the line of stations, on a wide screen between the stations and the sheet. */
export function StationFrame(props: StationFrameProps) {
  const wide = useWide();
  return (
    <>
      <AtEngine here={props.here} />
      {wide ? <OnTheBench {...props} /> : <OnAPhone {...props} />}
    </>
  );
}

/** "cyl 4 · trial 2" */
function useWhere(here: Place): string {
  const { report } = useStation();
  const cylinder = useMeasuredCylinder(report);
  return `cyl ${here === 'read' || here === 'trace' ? cylinder : 1} · trial ${report.trials.length || 1}`;
}

function OnAPhone({ here, children }: StationFrameProps) {
  const { report } = useStation();
  const { build, stations } = report;
  const where = useWhere(here);
  const practice = usePractice(build.id);
  const roomy = useRoomy();
  const { width } = useWindowDimensions();
  return (
    <View className="flex-1 bg-ground">
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
      <View role="main" className="flex-1">
        {practice?.showing === 'engine' ? <EngineHere run={practice} report={report} width={width} /> : children}
      </View>
    </View>
  );
}

function OnTheBench({ here, children }: StationFrameProps) {
  const { report, write } = useStation();
  const { build, stations } = report;
  const where = useWhere(here);
  const practice = usePractice(build.id);
  const [covered, setCovered] = useState(false);
  const voidEntry = (entry: string): void => void write('entry.voided', { voids: entry });
  const sheet = (
    <ScrollView className="flex-1" tabIndex={0} contentContainerStyle={{ padding: 20 }}>
      <SheetView report={report} onVoid={report.sign.closed ? null : voidEntry} covered={covered} />
    </ScrollView>
  );
  return (
    <View className="flex-1 flex-row bg-ground">
      <View className="w-[196px] border-r border-hairline pt-6">
        <View role="banner">
          <Link href="/" className="px-5 pb-5 font-bold text-[26px] text-ink">
            Yosoku
          </Link>
        </View>
        <StationRail buildId={build.id} stations={stations} here={here} />
      </View>
      <View role="main" className="flex-1 px-[26px] pt-[22px]">
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
        <CoverContext.Provider value={setCovered}>{children}</CoverContext.Provider>
      </View>
      {practice ? (
        <View
          role="complementary"
          aria-label="The practice engine"
          style={{ width: ENGINE_WIDTH }}
          className="border-l border-hairline"
        >
          <PracticeBeside run={practice} report={report} sheet={sheet} />
        </View>
      ) : (
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
      )}
    </View>
  );
}
