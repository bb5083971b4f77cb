import { useEffect, useState } from 'react';
import { Refusal, api, ask } from '@/sync/api';

type Answer = Awaited<ReturnType<typeof look>>;
type Shown = NonNullable<Answer['screen']>;

/** How often the screen asks, ms; and how often where it is told that its link shows nothing. */
const EVERY_MS = 1_200;
const TAKEN_BACK_MS = 20_000;

const look = (token: string, version: string) =>
  ask(api.board.$get({ query: { version } }, { headers: { Authorization: `Bearer ${token}` } }));

export interface Following {
  readonly shown: Shown | null;
  /** lost: the server did not answer when it was asked last, and what is shown is what it said before. */
  readonly state: 'asking' | 'following' | 'lost' | 'taken-back';
}

/** Follows a board by the token of its link. */
export function useBoard(token: string): Following {
  const [following, setFollowing] = useState<Following>({ shown: null, state: 'asking' });
  useEffect(() => {
    let gone = false;
    let version = '';
    let timer: ReturnType<typeof setTimeout>;
    const again = (after: number): void => {
      if (!gone) timer = setTimeout(() => void next(), after);
    };
    const next = async (): Promise<void> => {
      try {
        const answer = await look(token, version);
        if (gone) return;
        version = answer.version;
        setFollowing((before) => ({ shown: answer.screen ?? before.shown, state: 'following' }));
        again(EVERY_MS);
      } catch (error) {
        if (gone) return;
        const over = error instanceof Refusal && error.status === 410;
        setFollowing((before) => (over ? { shown: null, state: 'taken-back' } : { ...before, state: 'lost' }));
        if (over) version = '';
        again(over ? TAKEN_BACK_MS : EVERY_MS);
      }
    };
    void next();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [token]);
  return following;
}
