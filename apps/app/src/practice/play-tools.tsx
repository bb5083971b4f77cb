import { View } from 'react-native';
import {
  type PlayStand,
  type PlayWorld,
  type Pull,
  buttonChanged,
  playShows,
  pulled,
} from '@yosoku/core/simulation/play-world';
import { type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import { useShortcuts } from '@/ui/use-shortcuts';
import { Words } from '@/ui/words';
import type { LiveEngine } from './live-engine';
import { Tool } from './tool';

interface PlayToolsProps {
  readonly live: LiveEngine;
  readonly world: PlayWorld;
  readonly play: PlayStand;
  readonly units: LengthUnit;
}

const HELD: Readonly<Record<Pull, string>> = { none: 'let go', gentle: 'pulled gently', hard: 'pulled hard' };

/** What hands do at the nose of the cam: pull it against its button and let it go, file the button or shim it. */
export function PlayTools({ live, world, play, units }: PlayToolsProps) {
  const change = (how: (play: PlayStand) => PlayStand): void =>
    live.change((now) => (now.endPlay ? { ...now, endPlay: how(now.endPlay) } : now));
  const pull = (how: Pull) => (): void => change((now) => pulled(now, how));
  const button = (steps: number) => (): void => change((now) => buttonChanged(now, steps));
  useShortcuts({ g: pull('gentle'), h: pull('hard'), l: pull('none'), f: button(1), m: button(-1) });
  return (
    <View className="border-t border-hairline">
      <Words look="label" testID="play-shows" aria-live="polite" className="px-4 pt-1">
        {`The cam ${HELD[play.pull]}: its dial shows ${formatComputedLength(playShows(world, play), units)}.`}
      </Words>
      <View className="flex-row flex-wrap">
        <Tool
          testID="tool-gentle"
          label="Pull gently"
          chosen={play.pull === 'gentle'}
          says="Pull gently: the cam against its button"
          onPress={pull('gentle')}
        />
        <Tool
          testID="tool-hard"
          label="Pull hard"
          chosen={play.pull === 'hard'}
          says="Pull hard: the cam against its button"
          onPress={pull('hard')}
        />
        <Tool testID="tool-let-go" label="Let go" says="Let go: push the cam back" onPress={pull('none')} />
        <Tool
          testID="tool-file"
          label="File"
          says="File: a thousandth of an inch off the button, the cover bolted up again"
          onPress={button(1)}
        />
        <Tool
          testID="tool-shim"
          label="Shim"
          says="Shim: a thousandth of an inch under the button, the cover bolted up again"
          onPress={button(-1)}
        />
      </View>
    </View>
  );
}
