import { useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { formatComputedLength } from '@yosoku/core/units/length';
import { type PatternMarks, type PhotoPlace, patternOnPhoto } from '@yosoku/core/valve-train/pattern-on-photo';
import { wholeLength } from '@/forms/typed-length';
import { useStation } from '@/logbook/station';
import { PhotoMarks, shownScale } from '@/photos/photo-marks';
import { useKeepPhoto } from '@/photos/use-keep-photo';
import { useStationWidth } from '@/shell/use-station-width';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { FileField } from '@/ui/file-field';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

type Photo = Report['photos']['taken'][number];
type Draft = Readonly<Record<string, string>>;

const MARKS = 4;

/** A place that was touched, and how large the photo was shown then: shown pixels for each of its own. */
interface Mark {
  readonly at: PhotoPlace;
  readonly scale: number;
}

/** The form keeps the marks as "x,y,scale". */
const marksOf = (draft: Draft): Mark[] =>
  (draft.marks ?? '').split(' ').flatMap((mark): Mark[] => {
    const [x, y, scale] = mark.split(',').map(Number);
    return x === undefined || y === undefined || !scale || Number.isNaN(x + y) ? [] : [{ at: [x, y], scale }];
  });
const written = (marks: readonly Mark[]): string =>
  marks.map(({ at: [x, y], scale }) => `${x.toFixed(1)},${y.toFixed(1)},${scale.toFixed(4)}`).join(' ');

function allMarks([a, b, c, d]: readonly Mark[]): PatternMarks | null {
  return a && b && c && d ? [a.at, b.at, c.at, d.at] : null;
}

/** Where the width that stands in the form was measured on a photo; nothing where it was typed. */
export function measuredOnPhoto(draft: Draft) {
  const marks = allMarks(marksOf(draft));
  const { picture, photographed } = draft;
  return photographed === 'yes' && picture !== undefined && marks ? { onPhoto: { picture, marks } } : {};
}

const ASKS = [
  'Touch the edge of the tip that lies toward the pivot.',
  'Touch its other edge, straight across.',
  'Touch the edge of the pattern toward the pivot.',
  'Touch the other edge of the pattern.',
] as const;

const ZOOMS = [
  { value: '1', label: 'As it fits' },
  { value: '2', label: '2 ×' },
  { value: '4', label: '4 ×' },
] as const;
/** A finger, or a pointer, meets an edge to so many shown pixels, one standard deviation. From memory. */
const TOUCHED = 2;
const SIDE = 16;

interface PatternPhotoProps {
  readonly valve: 'intake' | 'exhaust';
  readonly draft: Draft;
  readonly change: (part: Draft) => void;
}

/** The pattern measured on a photo of the tip: both its edges and those of the tip are touched, the tip’s diameter gives the scale. */
export function PatternPhoto({ valve, draft, change }: PatternPhotoProps) {
  const { report } = useStation();
  const { build, photos, rockers } = report;
  const { busy, trouble, keep } = useKeepPhoto();
  // The same file added twice is one picture.
  const tips = photos.taken.filter(
    ({ shows, picture }, at, all) =>
      shows === 'tip' && all.findIndex((each) => each.shows === 'tip' && each.picture === picture) === at,
  );
  const { picture } = draft;
  const marks = marksOf(draft);
  const photo = tips.find((each) => each.picture === picture);
  const add = async (file: File): Promise<void> => {
    const added = await keep(file, {
      shows: 'tip',
      of: null,
      words: `${valve === 'intake' ? 'Intake' : 'Exhaust'} tip`,
    });
    if (added !== null) change({ picture: added, marks: '' });
  };
  if (rockers.tip === null)
    return <Words look="soft">Say the diameter of the tip first: it is the scale of the photo.</Words>;
  return (
    <View className="gap-3">
      {build.practice ? (
        <Words look="soft">An engine that does not exist has no photos.</Words>
      ) : (
        <FileField
          testID={`pattern-photo-${valve}`}
          label="Take or choose a photo of the tip"
          accept="image/*"
          onFile={(file) => void add(file)}
        />
      )}
      {busy ? (
        <Words look="soft" role="status">
          {busy}
        </Words>
      ) : null}
      {trouble ? <Notice kind="warning" message="The photo was not added." remedy={trouble} /> : null}
      {tips.length === 0 ? null : (
        <Choice
          lines
          testID={`pattern-which-${valve}`}
          label="Measured on"
          options={tips.map((each, at) => ({ value: each.picture, label: `${at + 1}: ${each.words ?? each.title}` }))}
          value={picture}
          onChange={(chosen) => change({ picture: chosen, marks: '' })}
        />
      )}
      {photo ? <Marking photo={photo} tip={rockers.tip} valve={valve} marks={marks} change={change} /> : null}
    </View>
  );
}

interface MarkingProps {
  readonly photo: Photo;
  readonly tip: number;
  readonly valve: 'intake' | 'exhaust';
  readonly marks: readonly Mark[];
  readonly change: (part: Draft) => void;
}

function Marking({ photo, tip, valve, marks, change }: MarkingProps) {
  const { id, units } = useStation().report.build;
  const room = useStationWidth() - 2 * SIDE;
  const [zoom, setZoom] = useState<(typeof ZOOMS)[number]['value']>('1');
  const scale = shownScale(photo, room, Number(zoom));
  const all = allMarks(marks);
  // As good as the touch that was made on the smallest picture: to look closer afterwards makes none of them better.
  const read = all && patternOnPhoto(all, tip, TOUCHED / Math.min(...marks.map((mark) => mark.scale)));
  const found = read?.ok ? read.found : null;
  const put = (next: readonly Mark[]): void => change({ marks: written(next) });
  const nudge = (x: number, y: number) => (): void => {
    const last = marks.at(-1);
    if (last) put([...marks.slice(0, -1), { at: [last.at[0] + x / scale, last.at[1] + y / scale], scale }]);
  };
  const ask = ASKS[marks.length];
  const use = (): void => {
    if (!found) return;
    const away = wholeLength(Math.abs(found.offset), units);
    change({
      photographed: 'yes',
      pattern: wholeLength(found.width, units),
      offset: found.offset < 0 ? `−${away}` : away,
    });
  };
  return (
    <View className="gap-2">
      <Words testID={`pattern-ask-${valve}`} aria-live="polite">
        {ask ??
          (found
            ? `The pattern is ${formatComputedLength(found.width, units)} wide, ±${formatComputedLength(found.expanded, units)}.`
            : read && !read.ok
              ? `${read.problem.message} ${read.problem.remedy}`
              : '')}
      </Words>
      <PhotoMarks
        buildId={id}
        photo={photo}
        marks={marks.map(({ at }) => at)}
        width={room}
        zoom={Number(zoom)}
        description={`Photo of the tip of the ${valve}, ${marks.length} of ${MARKS} marks put.`}
        onMark={(at) => put([...marks.slice(0, MARKS - 1), { at, scale }])}
      />
      <Choice testID={`pattern-zoom-${valve}`} label="Shown" options={ZOOMS} value={zoom} onChange={setZoom} />
      {marks.length === 0 ? null : (
        <View className="flex-row flex-wrap items-center gap-x-3">
          <QuietButton
            testID={`mark-back-${valve}`}
            label="Take the last mark back"
            onPress={() => put(marks.slice(0, -1))}
          />
          <QuietButton label="◂ left" onPress={nudge(-1, 0)} />
          <QuietButton label="right ▸" onPress={nudge(1, 0)} />
          <QuietButton label="▴ up" onPress={nudge(0, -1)} />
          <QuietButton label="▾ down" onPress={nudge(0, 1)} />
        </View>
      )}
      {found ? <PrimaryButton testID={`pattern-use-${valve}`} label="Use this width and place" onPress={use} /> : null}
    </View>
  );
}
