import { View } from 'react-native';
import { bladeSlides, bladeTaken, setToBlade, valveAtHand } from '@yosoku/core/simulation/valve-lash';
import { type Stand, dialMovedOn, dialPut } from '@yosoku/core/simulation/whole-engine';
import { type LengthUnit, formatLength } from '@yosoku/core/units/length';
import { useShortcuts } from '@/ui/use-shortcuts';
import { Words } from '@/ui/words';
import type { LiveEngine } from './live-engine';
import { Tool } from './tool';

interface LashToolsProps {
  readonly live: LiveEngine;
  readonly stand: Stand;
  readonly units: LengthUnit;
}

/** What hands do at the valves: take one in hand, slide a blade under it, turn its adjuster until the blade just slides. */
export function LashTools({ live, stand, units }: LashToolsProps) {
  const { engine } = live;
  const { cylinder, valve } = valveAtHand(stand);
  const other = valve === 'intake' ? 'exhaust' : 'intake';
  const blade = formatLength(stand.lash?.blade ?? 0, units);
  const slides = bladeSlides(engine, stand);
  const nextCylinder = (): void => live.change((now) => dialMovedOn(engine, now));
  const swap = (): void =>
    live.change((now) => dialPut(engine, now, valveAtHand(now).valve === 'intake' ? 'exhaust' : 'intake'));
  const take = (steps: number) => (): void => live.change((now) => bladeTaken(now, steps));
  const set = (): void => live.change((now) => setToBlade(engine, now));
  useShortcuts({ c: nextCylinder, d: swap, b: take(1), v: take(-1), t: set });
  return (
    <View className="border-t border-hairline">
      <Words look="label" tone={slides ? 'intake' : 'danger'} testID="blade" aria-live="polite" className="px-4 pt-1">
        {`Cylinder ${cylinder}, ${valve}: the ${blade} blade ${slides ? 'slides' : 'does not slide'}.`}
      </Words>
      <View className="flex-row flex-wrap">
        <Tool
          testID="tool-cylinder"
          label={`Cyl ${cylinder}`}
          says={`Cyl ${cylinder}: in hand. Go to the next`}
          onPress={nextCylinder}
        />
        <Tool
          testID="tool-valve"
          label={`Valve: ${valve}`}
          says={`Valve: ${valve}, in hand. Take the ${other}`}
          onPress={swap}
        />
        <Tool testID="tool-thinner" label="Thinner" says="Thinner: another blade" onPress={take(-1)} />
        <Tool testID="tool-thicker" label="Thicker" says="Thicker: another blade" onPress={take(1)} />
        <Tool
          testID="tool-set"
          label="Set to blade"
          says="Set to blade: turn the adjuster until it just slides, and lock it"
          onPress={set}
        />
      </View>
    </View>
  );
}
