import { TextLink } from '@/ui/text-link';
import { useLocalSearchParams } from 'expo-router';
import { type ReactNode, useEffect, useState } from 'react';
import { useStore } from 'react-redux';
import { type RootState, type Store, useAppSelector } from '@/store/store';
import { type FetchOutcome, fetchEntries } from '@/sync/fetch-builds';
import { followBuild } from '@/sync/follow-build';
import { Closed } from '@/logbook/closed';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { Words } from '@/ui/words';
import { StationFrame } from './station-frame';
import type { Place } from './station-line';
import { useLogbook } from '@/logbook/use-logbook';
import { StationProvider } from '@/logbook/station';

const BACK = { href: '/', label: 'Builds' } as const;

/** The build that the address names, with its newest entries; says so when it cannot be had. */
export function useBuildHere() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const store = useStore<RootState>() as unknown as Store;
  const [news, setNews] = useState<FetchOutcome | 'asking'>('asking');
  const logbook = useLogbook(id);
  const practice = useAppSelector((state) => id in state.practice.runs);
  useEffect(() => {
    // The server knows nothing of a practice.
    if (practice) return;
    let gone = false;
    let stop: (() => void) | undefined;
    void fetchEntries(store, id).then((outcome) => {
      if (gone) return;
      setNews(outcome);
      if (outcome === 'fresh' || outcome === 'unreachable') stop = followBuild(store, id);
    });
    return () => {
      gone = true;
      stop?.();
    };
  }, [id, practice, store]);
  return { ...logbook, news };
}

/** What stands in place of a build that is not here (yet). */
export function BuildMissing({ news }: { readonly news: FetchOutcome | 'asking' }) {
  if (news === 'asking')
    return (
      <Page title="Loading the build" back={BACK}>
        <Words look="soft">One moment.</Words>
      </Page>
    );
  return (
    <Page title="This build is not here" back={BACK}>
      {news === 'missing' ? (
        <Notice
          kind="warning"
          message="There is no such build in your shop."
          remedy="It may belong to another shop, or the address is mistyped. Go back to the builds."
        />
      ) : news === 'signed-out' ? (
        <>
          <Notice kind="warning" message="You are not signed in." remedy="Sign in to see this build." />
          <TextLink href="/sign-in" className="py-3">
            Sign in
          </TextLink>
        </>
      ) : (
        <Notice
          kind="warning"
          message="The server cannot be reached, and this build is not on this device yet."
          remedy="Try again when there is a network. Builds that you have opened before can be worked on without one."
        />
      )}
    </Page>
  );
}

/** A station of the build that the address names, in its frame. */
export function StationScreen(props: { readonly here: Place; readonly children: ReactNode }) {
  const { report, write, undo, news } = useBuildHere();
  if (!report) return <BuildMissing news={news} />;
  return (
    <Closed report={report} write={write}>
      {({ write: guarded, closed }) => (
        <StationProvider station={{ report, write: guarded, undo: closed ? null : undo }}>
          <StationFrame here={props.here}>{props.children}</StationFrame>
        </StationProvider>
      )}
    </Closed>
  );
}
