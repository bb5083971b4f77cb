import { useEffect, useRef, useState } from 'react';
import { Image, type PointerEvent, ScrollView, View, type ViewProps } from 'react-native';
import Svg, { Circle, G, Line, Text as SvgText } from 'react-native-svg';
import type { Report } from '@yosoku/core/report/report';
import type { PhotoPlace } from '@yosoku/core/valve-train/pattern-on-photo';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { NOT_HERE } from './photo-picture';
import { usePicture } from './use-picture';

type Photo = Report['photos']['taken'][number];

interface PhotoMarksProps {
  readonly buildId: string;
  readonly photo: Photo;
  /** In pixels of the photo. */
  readonly marks: readonly PhotoPlace[];
  /** Room for it, pixels; and how much larger than that it is shown. */
  readonly width: number;
  readonly zoom: number;
  readonly description: string;
  readonly onMark: (place: PhotoPlace) => void;
}

const HIGHEST = 420;
const ARM = 14;
/** A finger that slides further than this was scrolling, pixels. */
const STILL = 8;
const CROSSHAIR = { cursor: 'crosshair' } as unknown as ViewProps['style'];

/** Shown pixels for each pixel of a photo. */
export const shownScale = ({ width: wide, height }: Pick<Photo, 'width' | 'height'>, room: number, zoom: number) =>
  Math.min(room / wide, HIGHEST / height) * zoom;

/** By how much an arrow moves the cross, shown pixels: alone, and with Shift. */
const STRIDE = 10;
const FINE = 1;
const ARROWS: Readonly<Record<string, PhotoPlace>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Key {
  readonly key: string;
  readonly shiftKey?: boolean;
  readonly preventDefault: () => void;
}

/** A cross that arrow keys move over a photo, in its pixels, while it has the focus; null before that. */
function useCursor(
  { width, height }: Pick<Photo, 'width' | 'height'>,
  scale: number,
  onMark: (at: PhotoPlace) => void,
) {
  const [at, setAt] = useState<PhotoPlace>([width / 2, height / 2]);
  const [isShown, setShown] = useState(false);
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const keys = {
    // A pointer has its own cross.
    onFocus: ({ target }: { readonly target: unknown }) =>
      setShown(!(target instanceof HTMLElement) || target.matches(':focus-visible')),
    onBlur: () => setShown(false),
    onKeyDown: (event: Key) => {
      const step = ARROWS[event.key];
      if (step) {
        const by = (event.shiftKey ? FINE : STRIDE) / scale;
        setAt([within(at[0] + by * step[0], width), within(at[1] + by * step[1], height)]);
        setShown(true);
      } else if (event.key === 'Enter' || event.key === ' ') onMark(at);
      else return;
      event.preventDefault();
    },
  };
  return { cursor: isShown ? at : null, keys };
}

/** A photo that is touched where something is to be measured, or marked by keys; larger than its room it scrolls. */
export function PhotoMarks({ buildId, photo, marks, width, zoom, description, onMark }: PhotoMarksProps) {
  const theme = useTheme();
  const found = usePicture(buildId, photo.picture);
  const began = useRef({ x: 0, y: 0 });
  const scale = shownScale(photo, width, zoom);
  const { cursor, keys } = useCursor(photo, scale, onMark);
  const size = { width: Math.round(photo.width * scale), height: Math.round(photo.height * scale) };
  if (found.state !== 'here')
    return (
      <View className="min-h-[90px] justify-center border border-hairline p-3">
        <Words look="soft" role="status">
          {NOT_HERE[found.state]}
        </Words>
      </View>
    );
  const hold = ({ nativeEvent: { clientX, clientY } }: PointerEvent): void => {
    began.current = { x: clientX, y: clientY };
  };
  const touch = ({ nativeEvent: { clientX, clientY, offsetX, offsetY } }: PointerEvent): void => {
    const { x, y } = began.current;
    if (Math.hypot(clientX - x, clientY - y) <= STILL) onMark([offsetX / scale, offsetY / scale]);
  };
  const shown = Math.round(photo.height * shownScale(photo, width, 1));
  return (
    <View>
      <ScrollView style={{ height: shown, maxWidth: width }} tabIndex={-1}>
        <ScrollView horizontal tabIndex={-1}>
          <View style={size}>
            <Image source={{ uri: found.address }} alt={description} style={size} />
            <View
              testID="photo-marks"
              role="application"
              tabIndex={0}
              aria-label={`Marks on the photo. ${BY_KEYS}`}
              onPointerDown={hold}
              onPointerUp={touch}
              {...keys}
              style={[{ position: 'absolute', left: 0, top: 0, ...size }, CROSSHAIR]}
            >
              <Svg width={size.width} height={size.height} aria-hidden pointerEvents="none">
                {marks.map(([x, y], at) => (
                  <Cross key={at} x={x * scale} y={y * scale} name={at + 1} colour={theme.brass} under={theme.ground} />
                ))}
                {cursor ? (
                  <Cross x={cursor[0] * scale} y={cursor[1] * scale} colour={theme.ink} under={theme.ground} />
                ) : null}
              </Svg>
              {cursor ? <InSight left={cursor[0] * scale} top={cursor[1] * scale} /> : null}
            </View>
          </View>
        </ScrollView>
      </ScrollView>
      {/* Its room is kept: a line that came and went would move what a pointer is about to press, and over the photo it would hide an edge. */}
      <View className="min-h-[24px] justify-center">
        {cursor ? (
          <Words look="soft" testID="photo-keys">
            {BY_KEYS}
          </Words>
        ) : null}
      </View>
    </View>
  );
}

const BY_KEYS = 'Arrow keys move the cross, with Shift finely; Enter marks.';

/** A place that the photo is scrolled to. */
function InSight({ left, top }: { readonly left: number; readonly top: number }) {
  const place = useRef<View>(null);
  useEffect(() => {
    const element: unknown = place.current;
    if (element instanceof HTMLElement) element.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [left, top]);
  const half = ARM + 2;
  return (
    <View
      ref={place}
      pointerEvents="none"
      style={{ position: 'absolute', left: left - half, top: top - half, width: 2 * half, height: 2 * half }}
    />
  );
}

interface CrossProps {
  readonly x: number;
  readonly y: number;
  /** Of a mark that is put. */
  readonly name?: number;
  readonly colour: string;
  readonly under: string;
}

/** Open in the middle: the edge itself stays to be seen. */
function Cross({ x, y, name, colour, under }: CrossProps) {
  const arms = [
    [x - ARM, y, x - 3, y],
    [x + 3, y, x + ARM, y],
    [x, y - ARM, x, y - 3],
    [x, y + 3, x, y + ARM],
  ] as const;
  return (
    <G>
      {[
        { stroke: under, strokeWidth: 4 },
        { stroke: colour, strokeWidth: 2 },
      ].map((line) => (
        <G key={line.strokeWidth}>
          {arms.map(([x1, y1, x2, y2]) => (
            <Line key={`${x1} ${y1}`} x1={x1} y1={y1} x2={x2} y2={y2} {...line} />
          ))}
        </G>
      ))}
      {name === undefined ? null : (
        <>
          <Circle cx={x + ARM + 4} cy={y - ARM - 2} r={10} fill={under} stroke={colour} strokeWidth={1.5} />
          <SvgText
            x={x + ARM + 4}
            y={y - ARM + 3}
            fontSize={14}
            textAnchor="middle"
            fontFamily="Barlow_600SemiBold"
            fill={colour}
          >
            {String(name)}
          </SvgText>
        </>
      )}
    </G>
  );
}
