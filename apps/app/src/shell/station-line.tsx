import Check from 'lucide-react-native/icons/check';
import TriangleAlert from 'lucide-react-native/icons/triangle-alert';
import { Link, type Href } from 'expo-router';
import { useEffect, useRef } from 'react';
import { ScrollView, View, useWindowDimensions } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { STATION_NAMES, type Station } from '@yosoku/core/record/entries/stations';
import type { Report } from '@yosoku/core/report/report';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

export type Place = Station | 'crank' | 'trace' | 'lobes' | 'pistons' | 'what-if' | 'photos' | 'print' | 'sheet';

export const PLACE_NAMES: Readonly<Record<Place, string>> = {
  ...STATION_NAMES,
  crank: 'The crank',
  trace: 'Trace',
  lobes: 'Every lobe',
  pistons: 'For the piston maker',
  'what-if': 'What if',
  photos: 'Photos',
  print: 'Print',
  sheet: 'Sheet',
};
const STATE_WORDS = { due: 'due', begun: 'begun', done: 'done', void: 'to be done again' } as const;

export const placeHref = (buildId: string, place: Place): Href => `/builds/${buildId}/${place}`;

function StateSign({ state }: { readonly state: Report['stations'][number]['state'] | null }) {
  const theme = useTheme();
  if (state === 'done') return <Check size={13} color={theme.intake} strokeWidth={3} />;
  if (state === 'void') return <TriangleAlert size={15} color={theme.warning} />;
  return null;
}

/** The mark on the rule under a station: where one is, what is done, what is to be done again, else a plain tick. */
function RuleMark({
  here,
  state,
}: {
  readonly here: boolean;
  readonly state: Report['stations'][number]['state'] | null;
}) {
  const theme = useTheme();
  if (!here && (state === 'done' || state === 'void')) return <StateSign state={state} />;
  return (
    <Svg width="14" height="10" viewBox="0 0 14 10">
      {here ? (
        <Path d="M7 0 L14 10 L0 10 Z" fill={theme.brass} />
      ) : (
        <Path d="M7 4 V10" stroke={theme.line} strokeWidth="1.5" />
      )}
    </Svg>
  );
}

interface StationLineProps {
  readonly buildId: string;
  readonly stations: Report['stations'];
  readonly here: Place;
}

const linkLabel = (place: Place, state: Report['stations'][number]['state'] | null): string =>
  state ? `${PLACE_NAMES[place]}, ${STATE_WORDS[state]}` : PLACE_NAMES[place];

/** The stations across the top of a phone, over a rule with a mark under the one at hand. */
export function StationLine({ buildId, stations, here }: StationLineProps) {
  const places: { place: Place; state: Report['stations'][number]['state'] | null }[] = [
    ...stations.map(({ station, state }) => ({ place: station, state })),
    { place: 'sheet', state: null },
  ];
  const isHere = (place: Place): boolean => place === (PARENTS[here] ?? here);
  const at = places.findIndex(({ place }) => isHere(place));
  const scroll = useRef<ScrollView>(null);
  const { width } = useWindowDimensions();
  // The one at hand in the middle, with those before and after it a thumb away.
  useEffect(() => {
    scroll.current?.scrollTo({ x: Math.max(0, (at + 0.5) * TAB - width / 2), animated: false });
  }, [at, width]);
  return (
    <ScrollView
      ref={scroll}
      horizontal
      showsHorizontalScrollIndicator={false}
      role="navigation"
      aria-label="Stations"
      className="grow-0 border-b border-hairline"
      contentContainerStyle={{ flexGrow: 1 }}
    >
      {places.map(({ place, state }) => (
        <Link
          key={place}
          href={placeHref(buildId, place)}
          replace
          aria-label={linkLabel(place, state)}
          aria-current={isHere(place) ? 'page' : undefined}
          className="min-h-[46px] grow"
          style={{ minWidth: TAB }}
        >
          <View className="w-full items-center pt-2">
            <View className="h-[26px] justify-center">
              <Words look="label" tone={isHere(place) ? 'brass' : state === 'due' ? 'soft' : 'ink'}>
                {PLACE_NAMES[place]}
              </Words>
            </View>
            <View className="h-[12px] justify-end">
              <RuleMark here={isHere(place)} state={state} />
            </View>
          </View>
        </Link>
      ))}
    </ScrollView>
  );
}

/** Room for a station’s name on a phone. */
const TAB = 66;
/** Pages that belong to a station. */
const PARENTS: Partial<Record<Place, Place>> = {
  'what-if': 'decide',
  trace: 'read',
  lobes: 'read',
  pistons: 'clear',
  crank: 'zero',
  photos: 'sheet',
  print: 'sheet',
};

/** The same down the left of a wide screen, where the sheet is always in sight. */
export function StationRail({ buildId, stations, here: place }: StationLineProps) {
  const here = PARENTS[place] ?? place;
  return (
    <View role="navigation" aria-label="Stations">
      {stations.map(({ station, state }) => (
        <Link
          key={station}
          href={placeHref(buildId, station)}
          replace
          aria-label={linkLabel(station, state)}
          aria-current={station === here ? 'page' : undefined}
        >
          <View
            className={`min-h-[50px] w-full flex-row items-center gap-3 border-l-4 px-5 ${station === here ? 'border-brass bg-raised' : 'border-transparent'}`}
          >
            <View className="w-[16px]">
              <StateSign state={state} />
            </View>
            <Words look="sentence" tone={station === here ? 'brass' : state === 'due' ? 'soft' : 'ink'}>
              {PLACE_NAMES[station]}
            </Words>
          </View>
        </Link>
      ))}
    </View>
  );
}
