import { type Href, useLocalSearchParams, useRouter } from 'expo-router';
import { useCallback, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { signedIn } from '@/store/session-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Refusal, api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { ownPlace } from './own-place';
import { PairFigure } from './pair-figure';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';

type State =
  | { readonly is: 'asking' | 'no-code' | 'other' }
  | { readonly is: 'refused' | 'unreachable'; readonly why: string }
  | { readonly is: 'waiting'; readonly secret: string; readonly figure: string; readonly who: string };

/** How often the phone asks whether the bench has let it in, ms. */
const ASK_MS = 1_000;

/** What stands behind the # of the address: no server's log ever has it. */
const tokenHere = (): string => (typeof location === 'undefined' ? '' : location.hash.slice(1));

/** A phone that was held before the bench screen: claims the code, shows the figure, waits to be let in. */
export function Pair() {
  const router = useRouter();
  const { at } = useLocalSearchParams<{ at?: string }>();
  const place = ownPlace(at);
  const dispatch = useAppDispatch();
  const account = useAppSelector((state) => state.session.account);
  const [token] = useState(tokenHere);
  // Whoever is signed in here may have work that waits: it is not taken out of his hands.
  const [state, setState] = useState<State>(() => ({ is: token === '' ? 'no-code' : account ? 'other' : 'asking' }));
  const claimed = useRef(false);
  const claim = useCallback((): void => {
    ask(api.pairings.claim.$post({ json: { token } })).then(
      ({ secret, figure, builderName, shopName }) =>
        setState({ is: 'waiting', secret, figure, who: `${builderName}, ${shopName}` }),
      (error: Error) => setState({ is: error instanceof Refusal ? 'refused' : 'unreachable', why: error.message }),
    );
  }, [token]);
  const isAsking = state.is === 'asking';
  useEffect(() => {
    // A code is of one use, and effects may run twice.
    if (!isAsking || claimed.current) return;
    claimed.current = true;
    claim();
  }, [isAsking, claim]);
  const again = (): void => {
    claimed.current = false;
    setState({ is: 'asking' });
  };

  const secret = state.is === 'waiting' ? state.secret : null;
  useEffect(() => {
    if (secret === null) return;
    const timer = setInterval(() => {
      ask(api.pairings.finish.$post({ json: { secret } })).then(
        async ({ at: letInAt }) => {
          if (letInAt === null) return;
          clearInterval(timer);
          dispatch(signedIn(await ask(api.session.$get())));
          router.replace(letInAt as Href);
        },
        (error: Error) => {
          if (error instanceof Refusal) setState({ is: 'refused', why: error.message });
        },
      );
    }, ASK_MS);
    return () => clearInterval(timer);
  }, [secret, dispatch, router]);

  return (
    <Page title="This phone at the engine">
      <HowItStands state={state} place={place} onAgain={again} />
    </Page>
  );
}

interface StandsProps {
  readonly state: State;
  readonly place: Href;
  readonly onAgain: () => void;
}

function HowItStands({ state, place, onAgain }: StandsProps) {
  switch (state.is) {
    case 'asking':
      return <Words look="soft">Asking the bench.</Words>;
    case 'no-code':
      return (
        <Notice
          kind="warning"
          message="There is no code in this address."
          remedy="On the bench screen choose “A phone at the engine”, and point this phone’s camera at the code."
        />
      );
    case 'other':
      return <AnotherHere place={place} />;
    case 'refused':
      return (
        <Notice kind="warning" testID="pair-refused" message={state.why}>
          <TextLink href="/sign-in" className="py-3">
            Sign in with name and password
          </TextLink>
        </Notice>
      );
    case 'unreachable':
      return (
        <Notice kind="warning" message="The server cannot be reached." remedy="Is this phone in the same network?">
          <QuietButton label="Try again" testID="claim-again" onPress={onAgain} />
        </Notice>
      );
    case 'waiting':
      return (
        <View className="gap-4" testID="pair-waiting" role="status">
          <Words>{state.who}</Words>
          <Words look="label">Press “It is mine” on the bench screen, if it shows the same number:</Words>
          <PairFigure figure={state.figure} />
          <Words look="soft">Waiting for the bench.</Words>
        </View>
      );
  }
}

/** Somebody is signed in on this phone already. */
function AnotherHere({ place }: Pick<StandsProps, 'place'>) {
  const account = useAppSelector((state) => state.session.account);
  if (!account) return null;
  return (
    <Notice
      kind="warning"
      testID="other-account"
      message={`${account.builderName} of ${account.shopName} is signed in on this phone.`}
      remedy="Go on at the page of the bench, or sign out on the page of the shop first: what still waits to be sent stays on the phone."
    >
      <View className="flex-row flex-wrap gap-x-6">
        <TextLink href={place} testID="go-on" className="py-3">
          {`Go on as ${account.builderName}`}
        </TextLink>
        <TextLink href="/shop" className="py-3">
          The shop
        </TextLink>
      </View>
    </Notice>
  );
}
