import { useState } from 'react';
import { Text, View, useWindowDimensions } from 'react-native';
import type { Board } from '@yosoku/core/report/board';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { PLACE_NAMES } from '@/shell/station-line';
import { useAwake } from '@/ui/awake';
import { useBoard } from './use-board';

/** Type is sized by the screen: at 1280 × 720 so many pixels. */
const DRAWN_FOR = { width: 1280, height: 720 };
const SMALLEST = 0.32;
/** Below this shape the parts stand under each other. */
const UPRIGHT = 1;

/** The token stands behind the #: it goes to no server with the address of the page, and into no log. */
const tokenHere = (): string => (typeof location === 'undefined' ? '' : location.hash.slice(1));

/** A screen across the shop: one build, read-only, for eyes five metres away. */
export function BoardPage() {
  const [token] = useState(tokenHere);
  const { shown, state } = useBoard(token);
  useAwake(true);
  const said =
    state === 'taken-back'
      ? 'This link shows nothing any more: it was taken back, or it is mistyped.'
      : !shown
        ? state === 'lost'
          ? 'The server cannot be reached.'
          : 'Loading the board.'
        : shown.board
          ? null
          : 'No build is shown here. Put one on this board from its Sheet.';
  return (
    <View role="main" className="flex-1 bg-ground">
      {shown?.board ? <Shown board={shown.board} /> : null}
      <Foot
        said={said}
        lost={state === 'lost' && shown !== null}
        where={shown ? `${shown.shopName} · ${shown.name}` : ''}
      />
    </View>
  );
}

type Sizes = readonly (readonly [most: number, pixels: number])[];
/** Type for so many letters: what is short is read from afar, what is long still has to fit. */
const NOW: Sizes = [
  [70, 60],
  [120, 46],
  [200, 34],
  [Infinity, 29],
];
const HEADLINE: Sizes = [
  [60, 46],
  [Infinity, 32],
];
const fitting = (sizes: Sizes, letters: number): number => sizes.find(([most]) => letters <= most)?.[1] ?? 0;

/** How much larger or smaller than drawn for everything is on this screen. */
function useScale(): { readonly scale: number; readonly upright: boolean; readonly height: number } {
  const { width, height } = useWindowDimensions();
  const upright = width / height < UPRIGHT;
  const by = upright
    ? Math.min(width / 720, height / 1280)
    : Math.min(width / DRAWN_FOR.width, height / DRAWN_FOR.height);
  return { scale: Math.max(SMALLEST, by), upright, height };
}

function Shown({ board }: { readonly board: Board }) {
  const { scale, upright, height } = useScale();
  const { wheel, last, verdict } = board;
  const size = Math.round(upright ? 560 * scale : Math.min(470 * scale, height * 0.68));
  const type: Type = (pixels) => ({
    fontSize: Math.round(pixels * scale),
    lineHeight: Math.round(pixels * 1.08 * scale),
  });
  return (
    <View className={`flex-1 ${upright ? '' : 'flex-row'}`} style={{ padding: 28 * scale, gap: 28 * scale }}>
      <View className="min-h-0 flex-1 overflow-hidden" style={{ gap: 14 * scale }}>
        <Text className="font-medium text-soft" style={type(34)} numberOfLines={1}>
          {`${board.name} · ${PLACE_NAMES[board.station]}`}
        </Text>
        <Text
          role="heading"
          aria-level={1}
          aria-live="polite"
          testID="board-now"
          className="font-bold text-ink"
          style={type(fitting(NOW, board.now.length))}
        >
          {board.now}
        </Text>
        {last ? <LastRead {...last} type={type} /> : null}
        {verdict ? <Verdict {...verdict} type={type} /> : null}
      </View>
      <View className="items-center justify-center">
        <DegreeWheel
          ring={wheel.ring}
          rotation={wheel.rotation}
          position={wheel.position}
          size={size}
          tdc={wheel.tdc}
          marks={wheel.wanted.map(({ at, valve }) => ({ at, valve, kind: 'card' }))}
          figure={last?.figure ?? ''}
          word={last?.word ?? ''}
          description={`Degree wheel, engine running ${wheel.rotation}${last ? `. Last read: ${last.figure} ${last.word}` : ''}.`}
        />
      </View>
    </View>
  );
}

type Type = (pixels: number) => { readonly fontSize: number; readonly lineHeight: number };

function LastRead({ figure, word, label, type }: NonNullable<Board['last']> & { readonly type: Type }) {
  return (
    <View testID="board-last">
      <View className="flex-row flex-wrap items-baseline gap-x-4">
        <Text className="font-figures-bold text-ink" style={[type(170), { fontVariant: ['tabular-nums'] }]}>
          {figure}
        </Text>
        <Text className="font-bold text-ink" style={type(60)}>
          {word}
        </Text>
      </View>
      <Text className="font-medium text-soft" style={type(34)}>
        {`Last: ${label}`}
      </Text>
    </View>
  );
}

function Verdict({ headline, action, type }: NonNullable<Board['verdict']> & { readonly type: Type }) {
  return (
    <View testID="board-verdict" className="gap-1">
      <Text className="font-bold text-brass" style={type(fitting(HEADLINE, headline.length))}>
        {headline}
      </Text>
      {action ? (
        <Text className="font-medium text-ink" style={type(34)}>
          {action}
        </Text>
      ) : null}
    </View>
  );
}

interface FootProps {
  /** What stands in place of a build. */
  readonly said: string | null;
  readonly lost: boolean;
  readonly where: string;
}

/** Whose board it is, and whether it still follows. */
function Foot({ said, lost, where }: FootProps) {
  const { scale } = useScale();
  const type = (pixels: number) => ({ fontSize: Math.max(15, Math.round(pixels * scale)) });
  return (
    <View
      className={said === null ? 'flex-row flex-wrap justify-between' : 'flex-1 justify-center gap-6'}
      style={{ paddingHorizontal: 28 * scale, paddingBottom: 20 * scale, gap: 16 * scale }}
    >
      {said === null ? null : (
        <Text role="status" testID="board-said" className="font-bold text-ink" style={type(60)}>
          {said}
        </Text>
      )}
      {lost ? (
        <Text role="alert" testID="board-lost" className="font-bold text-danger" style={type(34)}>
          The server cannot be reached: this is what it said last.
        </Text>
      ) : null}
      <Text className="font-medium text-soft" style={type(26)}>
        {where}
      </Text>
    </View>
  );
}
