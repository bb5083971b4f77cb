import { useLocalSearchParams } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { cutText } from '@yosoku/core/units/text';
import { deviceWords } from '@/forms/device-words';
import { QrCode } from '@/pictures/qr-code';
import { Refusal, api, ask } from '@/sync/api';
import { type Reach, originFor } from '@/sync/reach';
import { ownPlace } from './own-place';
import { PairFigure } from './pair-figure';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const LONGEST_NAME = 60;

/** The bench screen: a code that a phone is held before, and is then signed in at the page that the bench has open. */
export function BenchCode() {
  const at = ownPlace(useLocalSearchParams<{ at?: string }>().at);
  const [reach, setReach] = useState<Reach | 'asking' | 'unreachable'>('asking');
  useEffect(() => {
    ask(api.reach.$get()).then(setReach, () => setReach('unreachable'));
  }, []);
  return (
    <Page title="A phone at the engine" back={{ href: at, label: 'Back' }}>
      {reach === 'asking' ? <Words look="soft">Loading.</Words> : null}
      {reach === 'unreachable' ? <Notice kind="warning" message="The server cannot be reached just now." /> : null}
      {typeof reach === 'string' ? null : <LetIn reach={reach} at={String(at)} />}
    </Page>
  );
}

function LetIn({ reach, at }: { readonly reach: Reach; readonly at: string }) {
  const origin = originFor(reach);
  if (origin === null)
    return (
      <Notice
        kind="warning"
        testID="not-reachable"
        message="No phone can reach this server yet."
        remedy="It listens on this machine alone. Start it with npm start -- --lan: then phones in the same network come in, over https."
      />
    );
  return (
    <>
      <Code origin={origin} at={at} />
      {reach.authority ? <Trust {...reach.authority} /> : null}
      {reach.addresses.length > 1 ? (
        <Words look="soft">{`It is reached as ${reach.addresses.join(', ')}.`}</Words>
      ) : null}
    </>
  );
}

/** Once for each phone: the authority of this shop. */
function Trust({ at, fingerprint }: NonNullable<Reach['authority']>) {
  return (
    <More label="First time with this phone? It has to trust this shop once" testID="more-trust">
      <View className="gap-3">
        <Words>
          Point its camera here. The page says how this phone installs the shop’s certificate, and then goes on by
          itself.
        </Words>
        <QrCode text={at} size={200} description={`Code for ${at}`} />
        <Words look="label" selectable>
          {at}
        </Words>
        <Words look="soft">Compare the fingerprint (SHA-256) on both screens:</Words>
        <Words selectable testID="fingerprint" className="font-figures">
          {fingerprint}
        </Words>
      </View>
    </More>
  );
}

type Pairing =
  | { readonly state: 'making' | 'over' | 'done' }
  | { readonly state: 'failed'; readonly why: string }
  | { readonly state: 'open'; readonly id: string; readonly token: string }
  | { readonly state: 'claimed'; readonly id: string; readonly figure: string; readonly agent: string };

/** How often the bench looks whether a phone has come, ms. */
const LOOK_MS = 1_000;

function usePairing(at: string) {
  const [pairing, setPairing] = useState<Pairing>({ state: 'making' });
  const make = useCallback(() => {
    ask(api.pairings.$post({ json: { at } })).then(
      ({ id, token }) => setPairing({ state: 'open', id, token }),
      (error: Error) => setPairing({ state: 'failed', why: error.message }),
    );
  }, [at]);
  useEffect(make, [make]);
  const begin = (): void => {
    setPairing({ state: 'making' });
    make();
  };
  const id = 'id' in pairing ? pairing.id : null;
  useEffect(() => {
    if (id === null) return;
    const timer = setInterval(() => {
      ask(api.pairings[':id'].$get({ param: { id } })).then(
        ({ state, figure, agent }) => {
          if (state === 'claimed' && figure !== null) setPairing({ state, id, figure, agent });
          else if (state === 'over') setPairing({ state });
          else if (state === 'gone') setPairing({ state: 'done' });
        },
        // A look that failed is made again.
        () => undefined,
      );
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [id]);
  const confirm = (name: string): void => {
    if (id === null) return;
    ask(api.pairings[':id'].confirm.$post({ param: { id }, json: { name } })).then(
      () => setPairing({ state: 'done' }),
      (error: Error) =>
        setPairing(error instanceof Refusal ? { state: 'over' } : { state: 'failed', why: error.message }),
    );
  };
  const refuse = (): void => {
    if (id !== null) void ask(api.pairings[':id'].$delete({ param: { id } })).catch(() => undefined);
    begin();
  };
  return { pairing, begin, confirm, refuse };
}

function Code({ origin, at }: { readonly origin: string; readonly at: string }) {
  const { pairing, begin, confirm, refuse } = usePairing(at);
  const { width } = useWindowDimensions();
  const [name, setName] = useState('');
  switch (pairing.state) {
    case 'making':
      return <Words look="soft">Making a code.</Words>;
    case 'failed':
      return (
        <Notice kind="warning" message={pairing.why}>
          <QuietButton testID="new-code" label="Try again" onPress={begin} />
        </Notice>
      );
    case 'over':
      return (
        <View className="gap-3" role="status">
          <Words>The two minutes of this code are over.</Words>
          <PrimaryButton testID="new-code" label="Make a new code" onPress={begin} />
        </View>
      );
    case 'done':
      return (
        <View className="gap-3" role="status">
          <Words look="heading" testID="let-in">
            The phone is signed in.
          </Words>
          <Words>It is listed under The shop, “Where you are signed in”, and can be shut out there.</Words>
          <QuietButton testID="new-code" label="Another phone" onPress={begin} />
        </View>
      );
    case 'open': {
      const address = `${origin}/pair?at=${encodeURIComponent(at)}#${pairing.token}`;
      return (
        <View className="gap-3">
          <Words look="label">Hold the phone before this code.</Words>
          <QrCode text={address} size={Math.min(320, width - 32)} description="Code that signs a phone in" />
          <Words look="soft" selectable testID="pair-address">
            {address}
          </Words>
          <Words look="soft">It works once, within two minutes, and opens the page that you came from.</Words>
        </View>
      );
    }
    case 'claimed':
      return (
        <View className="gap-4" testID="claimed">
          <Words look="heading">{`${deviceWords(pairing.agent)} wants to sign in.`}</Words>
          <Words>Does it show this number?</Words>
          <PairFigure figure={pairing.figure} />
          <TextField
            testID="device-name"
            label="What to call it"
            hint="Like “Phone of the second bay”. May stay empty."
            value={name}
            onChange={(text) => setName(cutText(text, LONGEST_NAME))}
          />
          <PrimaryButton testID="it-is-mine" label="It is mine: let it in" onPress={() => confirm(name)} />
          <QuietButton testID="not-mine" label="Not mine" onPress={refuse} />
        </View>
      );
  }
}
