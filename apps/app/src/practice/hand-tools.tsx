import { View } from 'react-native';
import {
  type Stand,
  dialMovedOn,
  dialPut,
  dialZeroed,
  lifterPushed,
  markedHere,
  withStop,
  withoutStop,
} from '@yosoku/core/simulation/whole-engine';
import type { LengthUnit } from '@yosoku/core/units/length';
import { useShortcuts } from '@/ui/use-shortcuts';
import { LashTools } from './lash-tools';
import type { LiveEngine } from './live-engine';
import { PlayTools } from './play-tools';
import { RockerTools } from './rocker-tools';
import { Tool } from './tool';
import type { HandsOn } from './wheel-picture';

interface HandToolsProps {
  readonly live: LiveEngine;
  readonly stand: Stand;
  readonly units: LengthUnit;
  readonly width: number;
  readonly hands: HandsOn;
  readonly onHands: (hands: HandsOn) => void;
  readonly onTrouble: (trouble: string | null) => void;
}

const NEXT_PLACE = { intake: 'exhaust', exhaust: 'piston', piston: 'intake' } as const;

/** What hands can do at a practice engine beside turning it. */
export function HandTools({ live, stand, units, width, hands, onHands, onTrouble }: HandToolsProps) {
  const { engine } = live;
  const stop = (): void => {
    if (live.stand().stop !== null) {
      onTrouble(null);
      live.change(withoutStop);
      return;
    }
    const fitted = withStop(engine, live.stand());
    onTrouble(fitted ? null : 'The piston is too high for the stop. Turn it well down first.');
    if (fitted) live.change(() => fitted);
  };
  const place = (): void => live.change((now) => dialPut(engine, now, NEXT_PLACE[now.dial.on]));
  const cylinder = (): void => live.change((now) => dialMovedOn(engine, now));
  const zero = (): void => live.change((now) => dialZeroed(engine, now));
  const noWheel = engine.ring.ring === 'rim';
  const wheel = (): void => {
    if (noWheel) live.change(markedHere);
    else onHands(hands === 'crank' ? 'wheel' : 'crank');
  };
  const push = (): void => live.change((now) => lifterPushed(engine, now));
  const atValves = engine.lash ?? engine.rockers ?? engine.endPlay;
  useShortcuts(atValves ? {} : { s: stop, d: place, c: cylinder, z: zero, w: wheel, l: push });
  if (engine.rockers && stand.rockers)
    return <RockerTools live={live} world={engine.rockers} stand={stand.rockers} units={units} width={width} />;
  if (engine.endPlay && stand.endPlay)
    return <PlayTools live={live} world={engine.endPlay} play={stand.endPlay} units={units} />;
  if (engine.lash) return <LashTools live={live} stand={stand} units={units} />;
  return (
    <View className="flex-row flex-wrap border-t border-hairline">
      <Tool
        testID="tool-stop"
        label={stand.stop === null ? 'Stop in' : 'Stop out'}
        says={stand.stop === null ? 'Stop in: across the bore' : 'Stop out: take it off'}
        onPress={stop}
      />
      <Tool testID="tool-zero" label="Zero dial" says="Zero dial: where it stands" onPress={zero} />
      <Tool
        testID="tool-dial"
        label={`Dial: ${stand.dial.on}`}
        says={`Dial: ${stand.dial.on}. Put it on the ${NEXT_PLACE[stand.dial.on]}`}
        onPress={place}
      />
      {engine.others ? (
        <Tool
          testID="tool-cylinder"
          label={`Cyl ${stand.dial.cylinder ?? 1}`}
          says={`The dial is at cylinder ${stand.dial.cylinder ?? 1}. Put it on the next`}
          onPress={cylinder}
        />
      ) : null}
      <WheelTool noWheel={noWheel} hands={hands} onPress={wheel} />
      {engine.lifter.kind === 'solid' ? null : (
        <Tool testID="tool-push" label="Lifters down" says="Lifters down: push them on their lobes" onPress={push} />
      )}
    </View>
  );
}

interface WheelToolProps {
  readonly noWheel: boolean;
  readonly hands: HandsOn;
  readonly onPress: () => void;
}

/** Slackens the wheel, or tightens it; without one the mark is made on the rim. */
function WheelTool({ noWheel, hands, onPress }: WheelToolProps) {
  const [label, does] = noWheel
    ? ['Mark here', 'make the mark on the rim where the pointer stands']
    : hands === 'crank'
      ? ['Move wheel', 'slacken it, and turn it on its hub']
      : ['Tighten it', 'the wheel is held again'];
  return (
    <Tool testID="tool-wheel" label={label} says={`${label}: ${does}`} chosen={hands === 'wheel'} onPress={onPress} />
  );
}
