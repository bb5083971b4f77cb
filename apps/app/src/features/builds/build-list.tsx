import { TextLink } from '@/ui/text-link';
import { Link } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import type { BuildSummary } from '@/store/logbook-slice';
import { selectBuilds } from '@/store/selectors';
import { selectSettings, settingsChanged } from '@/store/settings-slice';
import { type RootState, type Store, useAppDispatch, useAppSelector } from '@/store/store';
import { type FetchOutcome, fetchBuilds } from '@/sync/fetch-builds';
import { TakeInFile } from './import-file';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { Words } from '@/ui/words';
import { placeHref } from '@/shell/station-line';
import { SyncSign } from '@/shell/sync-sign';

const FIRST_LOOK_MS = 600;
const MOST_LOOKS = 7;

/** The shop's builds, the one last worked on first. */
export function BuildList() {
  const store = useStore<RootState>() as unknown as Store;
  const account = useAppSelector((state) => state.session.account);
  const builds = useAppSelector(selectBuilds);
  const [news, setNews] = useState<FetchOutcome | 'asking'>('asking');
  const behind = builds.some((build) => build.behind);
  const [looks, setLooks] = useState(0);
  useEffect(() => {
    void fetchBuilds(store).then(setNews);
  }, [store, looks]);
  // The server is still working out what some of them say: it is asked again, more and more rarely.
  useEffect(() => {
    if (!behind || looks >= MOST_LOOKS) return;
    const timer = setTimeout(() => setLooks(looks + 1), FIRST_LOOK_MS * 2 ** looks);
    return () => clearTimeout(timer);
  }, [behind, looks]);

  return (
    <Page
      title="Builds"
      aside={
        <View className="shrink flex-row flex-wrap gap-x-5">
          <TextLink href="/practice" testID="to-practice" small className="py-3">
            Practice
          </TextLink>
          <TextLink href="/print" testID="print-anywhere" small className="py-3">
            Print
          </TextLink>
          <TextLink href="/shop" small className="shrink py-3">
            {account?.shopName ?? 'The shop'}
          </TextLink>
        </View>
      }
    >
      <View className="flex-row flex-wrap items-center justify-between gap-3">
        <Link
          href="/builds/new"
          testID="new-build"
          className="bg-brass px-5 py-[15px] font-bold text-[19px] text-onBrass"
        >
          New build
        </Link>
        <SyncSign />
      </View>
      <WithoutHttps />
      <TakeInFile />
      {builds.length > 0 ? (
        <View role="list" className="border-t border-hairline">
          {builds.map((build) => (
            <BuildLine key={build.id} build={build} />
          ))}
        </View>
      ) : news === 'asking' ? (
        <Words look="soft">Loading the builds.</Words>
      ) : news === 'fresh' ? (
        <View className="gap-2">
          <Words>
            No build yet. Put the degree wheel on an engine, press “New build”, and say what it is; Zero comes first.
          </Words>
          <Words>No engine at hand? Find true TDC on one that is not there. It takes five minutes.</Words>
          <Link
            href="/practice?begin=find-tdc"
            testID="first-practice"
            className="self-start border-2 border-brass px-5 py-[13px] font-bold text-[18px] text-brass"
          >
            Learn it on the practice engine
          </Link>
        </View>
      ) : (
        <Words>
          The server cannot be reached just now, and no builds are kept on this device. You can begin a new one all the
          same: it is sent when the server is back.
        </Words>
      )}
    </Page>
  );
}

/** Said once: what a page cannot do that came over plain http from another machine. */
function WithoutHttps() {
  const dispatch = useAppDispatch();
  const { toldOfHttps } = useAppSelector(selectSettings);
  if (globalThis.isSecureContext !== false || toldOfHttps) return null;
  return (
    <Notice
      kind="warning"
      testID="without-https"
      message="This page came without https."
      remedy="Without the network it cannot be reloaded, and the screen cannot be kept awake. Everything else works; what is recorded is kept on this device. For https, start Yosoku with npm start -- --lan."
    >
      <View className="items-start">
        <QuietButton
          testID="https-told"
          label="Understood"
          onPress={() => void dispatch(settingsChanged({ toldOfHttps: true }))}
        />
      </View>
    </Notice>
  );
}

function BuildLine({ build }: { readonly build: BuildSummary }) {
  const { headline } = build;
  return (
    <View role="listitem" className="border-b border-hairline">
      <Link href={placeHref(build.id, build.place ?? 'decide')} testID="build" className="w-full">
        <View className="min-h-[68px] w-full flex-row items-center gap-3 py-2">
          <View className="shrink grow">
            <Words look="heading">{build.name}</Words>
            <Words look="soft">
              {build.behind ? `${headline} New entries are being worked out.`.trim() : headline}
            </Words>
          </View>
          <Words look="soft" className="shrink-0">
            {shortDate(build.updatedAt)}
          </Words>
        </View>
      </Link>
    </View>
  );
}

const shortDate = (iso: string): string =>
  iso === '' ? '' : new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' }).format(new Date(iso));
