import { TextLink } from '@/ui/text-link';
import { Link } from 'expo-router';
import { Pressable, View } from 'react-native';
import {
  READ_METHODS,
  READ_METHOD_NAMES,
  type ReadMethodName,
  readMethod,
  slotWords,
} from '@yosoku/core/measure/read-methods';
import type { Report } from '@yosoku/core/report/report';
import { usePractice } from '@/practice/practice-frame';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useShortcuts } from '@/ui/use-shortcuts';
import { ReadSketch } from '@/pictures/read-sketch';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { BANKS, type ReadingChoice } from './use-reading-choice';
import { useStation } from '@/logbook/station';

export const SITS_ON = [
  { value: 'lobe', label: 'The lobe' },
  { value: 'lifter', label: 'The lifter' },
  { value: 'bucket', label: 'The bucket' },
  { value: 'valve', label: 'The valve' },
] as const;

interface ChooseReadingProps {
  readonly choice: ReadingChoice;
  readonly onDone: () => void;
}

/** Every way of reading the cam; those that the engine does not allow say why. */
export function ChooseReading({ choice, onDone }: ChooseReadingProps) {
  const { report } = useStation();
  const { read, prepare, build } = report;
  const { method } = choice;
  const table = READ_METHODS[method];
  // Most practice engines have one cylinder to measure at.
  const practice = usePractice(build.id);
  const everyLobe = practice === null || practice.scenario.engine.others !== undefined;
  useShortcuts({ Enter: onDone, n: onDone });
  const put = (text: string): string => slotWords(text, { at: 'the height', valve: choice.valve, on: choice.sitsOn });
  return (
    <StationBody footer={<PrimaryButton testID="method-go" label={`Read by it: ${table.name}`} onPress={onDone} />}>
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1} testID="sentence">
          How the cam is read
        </Words>
        {method === read.proposal.method ? <Words look="body">{read.proposal.why}</Words> : null}
        {prepare.asItStands ? null : (
          <Words look="soft">
            How the engine is set up is not stated yet.{' '}
            <Link href={placeHref(build.id, 'prepare')} replace className="font-medium text-brass">
              Say it at Prepare
            </Link>
            , and the method that fits is proposed.
          </Words>
        )}
        <View role="radiogroup" aria-label="Method">
          {/* The practice engine has no spring caps. */}
          {READ_METHOD_NAMES.filter((name) => !build.practice || !readMethod(name).isFelt).map((name) => (
            <Method
              key={name}
              name={name}
              chosen={name === method}
              lacking={lacking(name, report)}
              onPress={() => choice.choose({ method: name })}
            />
          ))}
        </View>
        {choice.banked ? (
          <Choice
            testID="bank"
            label="The bank that is measured"
            options={BANKS}
            value={choice.bank === 2 ? '2' : '1'}
            onChange={(bank) => choice.choose({ bank })}
            hint={`Bank 2 is measured at cylinder ${build.engine.secondBank ?? ''}; its TDC follows from the firing order.`}
          />
        ) : null}
        <Choice
          testID="sits-on"
          label="The indicator sits on"
          options={SITS_ON}
          value={choice.sitsOn}
          onChange={(sitsOn) => choice.choose({ sitsOn })}
          {...(choice.sitsOn === 'valve'
            ? { hint: 'Lash set first. Lifts and heights are then those of the valve.' }
            : {})}
        />
        <Words look="body">{put(table.prepare)}</Words>
        <Notice
          kind="warning"
          message="While you turn it"
          remedy={`${table.cautions.join(' ')} The engine maker’s manual has the last word.`}
        />
        <TextLink href={placeHref(build.id, 'trace')} className="self-start py-2" testID="trace-import-link">
          A trace from a file, or pasted
        </TextLink>
        {everyLobe ? (
          <TextLink href={placeHref(build.id, 'lobes')} className="self-start py-2" testID="lobes-link">
            Every lobe: all cylinders, one beside the other
          </TextLink>
        ) : null}
      </View>
    </StationBody>
  );
}

/** What the engine lacks for a method, or null. It can be taken all the same: the builder knows his engine. */
function lacking(name: ReadMethodName, { read, prepare }: Report): string | null {
  const { followsDown, needsWheel } = READ_METHODS[name];
  if (needsWheel && prepare.asItStands && !prepare.asItStands.wheel) return 'needs a degree wheel';
  if (followsDown && !read.followsDown) return 'the lifter does not follow the lobe down';
  return null;
}

interface MethodProps {
  readonly name: ReadMethodName;
  readonly chosen: boolean;
  readonly lacking: string | null;
  readonly onPress: () => void;
}

function Method({ name, chosen, lacking: lacks, onPress }: MethodProps) {
  const { name: title, why } = READ_METHODS[name];
  return (
    <Pressable
      role="radio"
      testID={`read-${name}`}
      aria-checked={chosen}
      onPress={onPress}
      className={`min-h-[56px] flex-row items-center gap-4 border-b border-l-4 border-b-hairline py-2 pl-3 ${chosen ? 'border-l-brass bg-raised' : 'border-l-transparent'}`}
    >
      <View className="w-[84px] shrink-0">
        <ReadSketch method={name} width={84} />
      </View>
      <View className="shrink grow">
        <Words look="label">{lacks ? `${title}: ${lacks}` : title}</Words>
        <Words look="soft">{why}</Words>
      </View>
    </Pressable>
  );
}
