import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { readingAt } from '@yosoku/core/crank/wheel';
import { sayFigures } from '@yosoku/core/report/spoken';
import { WANTED_CLEAR } from '@yosoku/core/valve-train/resting';
import { valveWords } from '@yosoku/core/valve-train/valve-name';
import { figureOfReading } from '@/forms/figure';
import { useClosed } from '@/logbook/closed';
import { useStation } from '@/logbook/station';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { ValveRow } from '@/pictures/valve-row';
import { Afar } from '@/shell/afar';
import { PictureBeside } from '@/shell/picture-beside';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { Onward } from '@/steps/onward';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { TextLink } from '@/ui/text-link';
import { UndoButton } from '@/ui/undo-button';
import { useShortcuts } from '@/ui/use-shortcuts';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import { LashPad, PreloadPad } from './lash-pad';
import { LashSetup, useLashSetup } from './lash-setup';
import { type LashEntry, type LashJob, useLash } from './use-lash';

/** Lash: valve by valve, each where it rests, once through and once more. */
export function LashStation() {
  const { report } = useStation();
  const { job } = report.lash;
  const [isAnew, setAnew] = useState(false);
  return job && !isAnew ? (
    <Setting key={job.id} job={job} onAnew={() => setAnew(true)} />
  ) : (
    <Beginning onBegun={() => setAnew(false)} onBack={job ? () => setAnew(false) : null} />
  );
}

function useOnward(): () => void {
  const { report } = useStation();
  const router = useRouter();
  return () => router.replace(placeHref(report.build.id, 'sign'));
}

function Beginning({ onBegun, onBack }: { readonly onBegun: () => void; readonly onBack: (() => void) | null }) {
  const { report, undo } = useStation();
  const setup = useLashSetup();
  const onward = useOnward();
  const begin = (): void => {
    if (setup.begin()) onBegun();
  };
  useShortcuts({ Enter: begin, n: onward, u: () => undo?.() });
  const sentence = 'Set the lash: what is wanted, cold or hot, and in which order?';
  useSpoken(sentence);
  return (
    <StationBody footer={<PrimaryButton testID="lash-begin" label="Begin with the first valve" onPress={begin} />}>
      <View className="max-w-[720px] gap-5 px-4 wide:px-0 pb-8 pt-4">
        <Words look="title" level={1} testID="sentence">
          {sentence}
        </Words>
        <Words look="soft">
          A valve is set with its lifter on the base circle of its lobe; one that was not is loose afterwards. The
          figures are those of the cam’s maker or the engine’s manual, for an engine as cold or as hot as they say.
          Ignition and fuel off, turned by hand only; hot parts burn.
        </Words>
        <LashSetup setup={setup} />
        <History />
        {report.rockers.applies || report.prepare.asItStands?.lifter === 'bucket' ? null : (
          <TextLink href={placeHref(report.build.id, 'rockers')} className="self-start py-2" testID="rockers-link">
            Rockers and pushrods: this engine has them
          </TextLink>
        )}
        <View className="flex-row flex-wrap items-center justify-between gap-x-4">
          {onBack ? (
            <QuietButton testID="lash-back" label="Back to the valves" onPress={onBack} />
          ) : (
            <QuietButton testID="lash-next" label="Not set here: on to Sign" onPress={onward} />
          )}
          {onBack ? null : <UndoButton undo={undo} />}
        </View>
      </View>
    </StationBody>
  );
}

function Setting({ job, onAnew }: { readonly job: LashJob; readonly onAnew: () => void }) {
  const { report } = useStation();
  const { lash, build } = report;
  const entry = useLash(job);
  const { own, stop } = entry;
  const onward = useOnward();
  const closed = useClosed() !== null;
  const sentence = own?.task ?? lash.sentence;
  useSpoken(sayFigures(sentence));
  const pad = { job, entry, onNext: onward };
  const wide = useWide();
  const row = (
    <View className="gap-2">
      <ValveRow
        valves={job.valves}
        cylinders={build.engine.cylinders}
        next={own}
        here={stop?.valves ?? []}
        onChoose={closed ? null : entry.choose}
      />
      <Words look="soft" testID="lash-counts">
        {job.countWords}
      </Words>
    </View>
  );
  return (
    <StationBody
      footer={
        own === null ? (
          <Onward label="On to Sign" onNext={onward} />
        ) : job.wanted.kind === 'lash' ? (
          <LashPad {...pad} own={own} />
        ) : (
          <PreloadPad {...pad} own={own} />
        )
      }
      afar={
        <Afar
          sentence={sentence}
          figure={`${job.counts.set}`}
          word={`of ${job.counts.all} set`}
          picture={(size) => <StopWheel entry={entry} size={size} />}
        />
      }
    >
      <View className="gap-4 px-4 wide:px-0 pb-4 pt-4 wide:max-w-[860px]">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {sentence}
        </Words>
        {stop?.sign ? <Words look="soft">{stop.sign}</Words> : null}
        <NearRamp entry={entry} />
        {wide ? (
          <PictureBeside
            picture={(width) => (
              <View className="items-center">
                <StopWheel entry={entry} size={Math.min(width, WHEEL)} />
              </View>
            )}
          >
            {row}
          </PictureBeside>
        ) : (
          <>
            {row}
            <View className="items-center">
              <StopWheel entry={entry} size={PHONE_WHEEL} />
            </View>
          </>
        )}
        {job.valves.map(({ words, cylinder, valve, state }) =>
          words === null ? null : state === 'set' ? (
            <Words key={words} testID={`lash-trouble-${cylinder}-${valve}`}>
              {words}
            </Words>
          ) : (
            <Notice
              key={words}
              kind="warning"
              message={state === 'loose' ? 'Loose' : 'Tight'}
              remedy={words}
              testID={`lash-trouble-${cylinder}-${valve}`}
            />
          ),
        )}
        <History />
        {closed ? null : (
          <View className="items-start">
            <QuietButton testID="lash-anew" label="Another order, figure or temperature" onPress={onAnew} />
          </View>
        )}
      </View>
    </StationBody>
  );
}

/** As large as it is drawn beside the valves, and under them on a phone, pixels. */
const WHEEL = 300;
const PHONE_WHEEL = 220;

/** How far the valve at hand stands from its ramp where it is set, where that is too near to be passed over. */
function NearRamp({ entry: { own, stop } }: { readonly entry: LashEntry }) {
  const here = stop?.valves.find(({ cylinder, valve }) => cylinder === own?.cylinder && valve === own.valve);
  if (!own || here?.clear == null || here.clear >= WANTED_CLEAR) return null;
  return (
    <Notice
      kind="warning"
      testID="on-ramp"
      message={here.clear < 0 ? 'It stands on its lobe here.' : `Only ${Math.round(here.clear)}° from its ramp here.`}
      remedy={`${WANTED_CLEAR}° are wanted. Look at the ${valveWords(own)} again in the second round.`}
    />
  );
}

/** The wheel as it stands at the stop; nothing where only the valves show it. */
function StopWheel({ entry: { stop }, size }: { readonly entry: LashEntry; readonly size: number }) {
  const { report } = useStation();
  const { build } = report;
  if (stop?.ring == null) return null;
  return (
    <DegreeWheel
      ring={build.wheel}
      others={build.rings}
      rotation={build.engine.rotation}
      position={stop.ring}
      size={size}
      tdc={0}
      turn="forward"
      {...figureOfReading(readingAt(build.wheel, Math.round(stop.ring)))}
      description={`The wheel at ${stop.place}.`}
    />
  );
}

/** What each valve was left at and found at over the years. */
function History() {
  const { lash } = useStation().report;
  const moving = lash.history.filter(({ trend }) => trend !== null);
  const steady = lash.history.filter(({ trend }) => trend === null);
  if (lash.history.length === 0) return null;
  return (
    <View className="gap-2 border-t border-hairline pt-3" testID="lash-history">
      <Words look="heading" level={2}>
        Since it was set before
      </Words>
      {moving.map(({ words, trend }) => (
        <Words key={words} tone={trend === 'tighter' ? 'danger' : 'ink'}>
          {words}
        </Words>
      ))}
      {steady.length === 0 ? null : (
        <More testID="lash-steady" label={`${steady.length} neither tighten nor loosen`}>
          <View className="gap-2">
            {steady.map(({ words }) => (
              <Words key={words}>{words}</Words>
            ))}
          </View>
        </More>
      )}
    </View>
  );
}
