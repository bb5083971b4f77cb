import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { sayFigures } from '@yosoku/core/report/spoken';
import { useClosed } from '@/logbook/closed';
import { useStation } from '@/logbook/station';
import { RockerPicture } from '@/pictures/rocker-picture';
import { PictureBeside } from '@/shell/picture-beside';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { PrimaryButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { UndoButton } from '@/ui/undo-button';
import { useShortcuts } from '@/ui/use-shortcuts';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import { PushrodOrder } from './pushrod-order';
import { RockerSetup } from './rocker-setup';
import { RockerTrial } from './rocker-trial';

type Finding = Report['rockers']['valves'][number];

/** Rockers: the geometry over the tip of the valve, tried until it is right, and the pushrods that follow from it. */
export function RockersStation() {
  const { report, undo } = useStation();
  const { rockers, build } = report;
  const router = useRouter();
  const closed = useClosed() !== null;
  const onward = (): void => router.replace(placeHref(build.id, 'lash'));
  useShortcuts({ n: onward, u: () => undo?.() });
  useSpoken(sayFigures(rockers.sentence));
  return (
    <StationBody footer={<PrimaryButton testID="rockers-next" label="On to Lash" onPress={onward} />}>
      <View className="gap-6 px-4 wide:px-0 pb-8 pt-4 wide:max-w-[860px]">
        <Words look="title" level={1} testID="sentence" aria-live="polite">
          {rockers.sentence}
        </Words>
        <Words look="soft">
          A narrow pattern in the middle third of the tip, the arm square at mid-lift, and the lift there. Turn it by
          hand, light checking springs on; a lifter that will run, or one made solid.
        </Words>
        {closed ? null : rockers.mounted === null ? (
          <RockerSetup />
        ) : (
          <More testID="rockers-more" label="Mounting, arm, tip and step">
            <RockerSetup />
          </More>
        )}
        {rockers.mounted === null
          ? null
          : rockers.valves.map((finding) => <RockerValve key={finding.valve} finding={finding} isClosed={closed} />)}
        <View className="items-start">
          <UndoButton undo={undo} />
        </View>
      </View>
    </StationBody>
  );
}

/** What a phone leaves free on either side, pixels. */
const SIDE = 16;

function RockerValve({ finding, isClosed }: { readonly finding: Finding; readonly isClosed: boolean }) {
  const { valve, words, order, problem, theory } = finding;
  const name = NAMES[valve];
  return (
    <View className="gap-3 border-t border-hairline pt-3">
      <Words look="heading" level={2} tone={valve}>
        {name}
      </Words>
      {problem ? (
        <Notice kind="warning" message={problem.message} remedy={problem.remedy} testID={`rocker-words-${valve}`} />
      ) : (
        <Words testID={`rocker-words-${valve}`}>{words}</Words>
      )}
      <Geometry finding={finding} />
      {order ? (
        <View className="gap-2">
          <Words look="sentence" testID={`pushrod-words-${valve}`}>
            {order.words}
          </Words>
          {order.effect === null ? null : <Words look="soft">{order.effect}</Words>}
          {order.trouble.map((trouble) => (
            <Notice key={trouble} kind="warning" message={`${name} pushrod`} remedy={trouble} />
          ))}
        </View>
      ) : null}
      <Theory theory={theory} valve={valve} />
      {isClosed ? null : <Entry finding={finding} />}
    </View>
  );
}

const NAMES = { intake: 'Intake', exhaust: 'Exhaust' } as const;

/** The arm as it stood in the last trial, beside all of them. */
function Geometry({ finding }: { readonly finding: Finding }) {
  const { rockers } = useStation().report;
  const wide = useWide();
  const { valve, words, trials, arm, path, lift, ratio } = finding;
  const list = <Trials trials={trials} valve={valve} />;
  if (!arm || path === null || lift === null || ratio === null || rockers.arm === null) return list;
  const drawn = { arm, path, lift, ratio, length: rockers.arm, tip: rockers.tip, valve };
  return (
    <PictureBeside
      picture={(width) => (
        <RockerPicture
          {...drawn}
          offset={trials.at(-1)?.offset ?? 0}
          width={Math.min(width - (wide ? 0 : 2 * SIDE), 420)}
          description={`${NAMES[valve]}: the arm closed, half open and open, as it stood in the last trial; the roller’s path across the tip. ${words}`}
        />
      )}
    >
      {list}
    </PictureBeside>
  );
}

/** What every valve lifts, against what lobe, ratio and lash make of it. */
function Theory({ theory, valve }: Pick<Finding, 'theory' | 'valve'>) {
  if (theory.length === 0) return null;
  return (
    <View className="gap-1" testID={`theory-${valve}`}>
      <Words look="label">Lift at the valve, by lobe, ratio and lash</Words>
      {theory.map((each) => (
        <Words key={each.cylinder} tone={each.right ? 'ink' : 'danger'}>
          {each.words}
        </Words>
      ))}
    </View>
  );
}

/** What comes next is open; the rest is folded away. */
function Entry({ finding }: { readonly finding: Finding }) {
  const { valve, chosen, order } = finding;
  const trial = <RockerTrial finding={finding} />;
  const length = <PushrodOrder finding={finding} />;
  if (order)
    return (
      <More testID={`trial-more-${valve}`} label={`Another trial, or another length, ${valve}`}>
        {trial}
        {length}
      </More>
    );
  return chosen === null ? (
    <>
      {trial}
      <More testID={`pushrod-more-${valve}`} label={`Length of the ${valve} pushrods to order`}>
        {length}
      </More>
    </>
  ) : (
    <>
      {length}
      <More testID={`trial-more-${valve}`} label={`Another trial, ${valve}`}>
        {trial}
      </More>
    </>
  );
}

function Trials({ trials, valve }: { readonly trials: Finding['trials']; readonly valve: Finding['valve'] }) {
  if (trials.length === 0) return null;
  return (
    <View role="list" aria-label={`${valve}, lengths tried`} className="gap-1">
      {trials.map(({ entry, shows, words, verdict }) => (
        <View key={entry} role="listitem" className="flex-row items-baseline gap-3 border-b border-hairline py-1">
          <Words look="figure" className="w-[88px] shrink-0 font-figures-bold">
            {shows}
          </Words>
          <Words className="shrink" tone={verdict === 'not-yet' || verdict === null ? 'ink' : valve}>
            {words}
          </Words>
        </View>
      ))}
    </View>
  );
}
