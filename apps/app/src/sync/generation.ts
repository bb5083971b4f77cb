import { useSyncExternalStore } from 'react';

/** Raised when this app understands the server’s answers in another way than before. */
const GENERATION = 1;
/** In which the server says which generations of the app it still speaks with. Stands in apps/server/src/web/generation.ts too. */
const HEADER = 'Yosoku-Least-App';

let tooOld = false;
const heard = new Set<() => void>();

/** Heeds what an answer says of the versions that its server speaks with. */
export function heedGeneration(answer: Response): Response {
  const least = Number(answer.headers?.get(HEADER) ?? 0);
  const now = least > GENERATION;
  if (now !== tooOld && least > 0) {
    tooOld = now;
    for (const each of heard) each();
  }
  return answer;
}

/** Is this version too old for the server? */
export const useTooOld = (): boolean =>
  useSyncExternalStore(
    (each) => {
      heard.add(each);
      return () => heard.delete(each);
    },
    () => tooOld,
    () => false,
  );
