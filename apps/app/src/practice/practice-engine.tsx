import { TextLink } from '@/ui/text-link';
import { useState } from 'react';
import { ScrollView, View, useWindowDimensions } from 'react-native';
import { VALVES } from '@yosoku/core/cam/card';
import { adviceFor } from '@yosoku/core/practice/coach';
import { EXERCISES } from '@yosoku/core/practice/exercises';
import type { Report } from '@yosoku/core/report/report';
import { useShortcuts } from '@/ui/use-shortcuts';
import { type PracticeRun, hinted } from '@/store/practice-slice';
import { useAppDispatch } from '@/store/store';
import { QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { BoxTools } from './box-tools';
import { CylinderPicture } from './cylinder-picture';
import { DialPicture } from './dial-picture';
import { DriveTools } from './drive-tools';
import { HandTools } from './hand-tools';
import type { LiveEngine } from './live-engine';
import { TurnKeys } from './turn-keys';
import { useBusySign, useLiveEngine, useRested } from './use-live-engine';
import { DrivePicture, LobePicture } from './valve-train-picture';
import { type HandsOn, RingCloseUp, WheelPicture, turnBy } from './wheel-picture';

interface PracticeEngineProps {
  readonly run: PracticeRun;
  readonly report: Report;
  readonly width: number;
}

/** Height of header, advice, tools and keys on a phone. */
const AROUND = 92 + 60 + 54 + 122;
const ROOM_FOR_BOTH = 560;
const PICTURES = { most: 250, least: 180 } as const;

/** The practice engine: pictures that follow the hand, tools, and keys to turn it by. */
export function PracticeEngine({ run, report, width }: PracticeEngineProps) {
  const live = useLiveEngine(run);
  const stand = useRested(live);
  const busySign = useBusySign(live);
  const { height } = useWindowDimensions();
  const [hands, setHands] = useState<HandsOn>('crank');
  const [trouble, setTrouble] = useState<string | null>(null);
  const { units } = run.scenario.base;
  const turn = (by: number): void => {
    setTrouble(null);
    turnBy(live, hands, by, true);
  };
  useShortcuts({
    ArrowRight: () => turn(1),
    ArrowLeft: () => turn(-1),
    ArrowUp: () => turn(0.25),
    ArrowDown: () => turn(-0.25),
    PageUp: () => turn(10),
    PageDown: () => turn(-10),
    End: () => turn(90),
    Home: () => turn(-90),
  });
  const room = height - AROUND;
  const high = Math.max(PICTURES.least, Math.min(PICTURES.most, room * 0.48));
  const wheel = Math.max(190, Math.min(width - 24, room - high - 4, 300));
  const cylinder = Math.round(width * 0.3);
  const drive = Math.round(width * 0.17);
  const train = width - cylinder - drive;
  // What is pressed stays under the thumb, unless the window is too low for it: a large zoom, a phone on its side.
  const stays = height >= ROOM_FOR_BOTH;
  const hand = (
    <View>
      <RingCloseUp live={live} width={width} />
      {trouble ? (
        <View className="px-4 py-1">
          <Notice kind="warning" message={trouble} testID="hand-trouble" />
        </View>
      ) : null}
      <HandTools
        live={live}
        stand={stand}
        units={units}
        width={width}
        hands={hands}
        onHands={setHands}
        onTrouble={setTrouble}
      />
      <TurnKeys onTurn={turn} what={hands === 'crank' ? 'the crank' : 'the wheel on its hub'} />
    </View>
  );
  return (
    <View ref={busySign} className="flex-1" testID="practice-engine">
      <ScrollView className="flex-1" tabIndex={0}>
        <Advice run={run} report={report} />
        <View className="flex-row">
          <CylinderPicture live={live} units={units} width={cylinder} height={high} />
          <DrivePicture live={live} width={drive} height={high} />
          <View style={{ width: train, height: high }} className="items-center">
            <DialPicture live={live} units={units} size={high * 0.54} />
            <View className="flex-row">
              {VALVES.map((valve) => (
                <LobePicture
                  key={valve}
                  live={live}
                  valve={valve}
                  dial={stand.dial.on === valve}
                  width={train / 2}
                  height={high * 0.46}
                />
              ))}
            </View>
          </View>
        </View>
        <WheelPicture live={live} size={wheel} hands={hands} />
        <View className="px-4 pb-4 pt-3">
          <More label="The timing drive" testID="more-drive">
            <DriveTools live={live} run={run} />
          </More>
          <More label="The bench box" testID="more-box">
            <BoxTools id={run.id} />
          </More>
          <Keys live={live} />
        </View>
        {stays ? null : hand}
      </ScrollView>
      {stays ? hand : null}
    </View>
  );
}

/** What the keyboard does at this engine. */
function Keys({ live: { engine } }: { readonly live: LiveEngine }) {
  return (
    <More label="Keys" testID="more-keys">
      <Words look="soft">
        Arrow keys turn it: right and left one degree, up and down a quarter; Page up and Page down ten, End and Home
        ninety. S stop · D where the dial sits · Z zero the dial · W wheel on its hub · L lifters down · E engine or
        station.
      </Words>
      {engine.lash ? (
        <Words look="soft">
          C next cylinder · D the other valve · B thicker blade · V thinner · T set to the blade.
        </Words>
      ) : null}
      {engine.rockers ? (
        <Words look="soft">
          S and D the pushrod a little shorter and longer · A and F much · T turn it over and look at the tip.
        </Words>
      ) : null}
      {engine.endPlay ? (
        <Words look="soft">G pull gently · H pull hard · L let go · F file the button · M shim it.</Words>
      ) : null}
    </More>
  );
}

/** What to do now: always said in a guided exercise, else when it is asked for. */
function Advice({ run, report }: { readonly run: PracticeRun; readonly report: Report }) {
  const dispatch = useAppDispatch();
  const [asked, setAsked] = useState<string | null>(null);
  const wide = useWide();
  const { guided, task, goal } = EXERCISES[run.exercise];
  const advice = adviceFor(run.exercise, run.scenario, run.stand, report);
  const says = guided || asked === advice.sentence;
  return (
    <View className="flex-row items-start justify-between gap-3 px-4 py-2">
      <Words
        look={guided ? 'label' : 'soft'}
        {...(wide ? {} : { level: 1 as const })}
        className="shrink grow"
        testID="advice"
        aria-live="polite"
      >
        {says ? advice.sentence : task}
      </Words>
      {guided || says || goal === 'free' || run.doneAt ? null : (
        <QuietButton
          testID="hint"
          label="A hint"
          onPress={() => {
            setAsked(advice.sentence);
            dispatch(hinted(run.id));
          }}
        />
      )}
      <TextLink href={`/practice/${run.id}`} testID="finish" className="py-[10px]">
        {run.doneAt ? 'Debrief' : 'Finish'}
      </TextLink>
    </View>
  );
}
