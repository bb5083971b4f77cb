import { useEffect, useRef } from 'react';
import { useAppSelector } from '@/store/store';
import { selectSettings } from '@/store/settings-slice';
import { useShortcuts } from './use-shortcuts';

/** Does this browser have a voice of its own? */
export const hasVoice = (): boolean => typeof window !== 'undefined' && 'speechSynthesis' in window;

/** What was kept is read back before what comes next is said, whichever of them is heard of first. */
const waiting: { back: string | null; next: string | null } = { back: null, next: null };
let timer: ReturnType<typeof setTimeout> | undefined;

function speak(part: keyof typeof waiting, text: string): void {
  if (!hasVoice()) return;
  waiting[part] = text;
  clearTimeout(timer);
  timer = setTimeout(() => {
    // What is being said is about something that is over.
    window.speechSynthesis.cancel();
    for (const each of [waiting.back, waiting.next]) {
      if (each === null) continue;
      const said = new SpeechSynthesisUtterance(each);
      said.lang = 'en';
      window.speechSynthesis.speak(said);
    }
    waiting.back = null;
    waiting.next = null;
  });
}

/** Says something that was asked for, whether the voice is on or not. */
export const sayNow = (text: string): void => speak('next', text);

/** Reads back what was kept. */
export function useReadBack(): (text: string) => void {
  const { spoken } = useAppSelector(selectSettings);
  return (text) => {
    if (spoken) speak('back', text);
  };
}

/** Speaks what the hands do next whenever that changes, and again at a key. */
export function useSpoken(instruction: string | null): void {
  const { spoken } = useAppSelector(selectSettings);
  const said = useRef<string | null>(null);
  useEffect(() => {
    if (!spoken || instruction === null || said.current === instruction) return;
    said.current = instruction;
    speak('next', instruction);
  }, [spoken, instruction]);
  useEffect(
    () => () => {
      if (hasVoice()) window.speechSynthesis.cancel();
    },
    [],
  );
  useShortcuts({
    v: () => {
      if (instruction !== null) sayNow(instruction);
    },
  });
}
