/**
 * The sign-in that stands on the page before the program has come: an old phone on a slow line takes seconds for that. The server sends it to whoever
 * has no session; the program puts its own sign-in in its place, and what has been typed into it.
 */

/** Where it stands in `first-page/form.html`, and how it is marked when it was sent before there was anybody to send it to. */
export const FIRST_FORM = 'first-form';
export const SENT = 'sent';

/** What the form held when the program came. */
export interface FirstTyped {
  readonly signInName: string;
  readonly password: string;
  /** The field that was being typed into. */
  readonly at: 'signInName' | 'password' | null;
  /** Its button had been pressed. */
  readonly sent: boolean;
}

const standing = (): HTMLElement | null =>
  typeof document === 'undefined' ? null : document.getElementById(FIRST_FORM);

/**
 * Takes the form off the page, where there is one.
 * @param goOn is given what had been typed into it, at once.
 */
export function takeOverFirstForm(goOn: (typed: FirstTyped) => void): void {
  const form = standing();
  if (!form) return;
  const field = (name: string): HTMLInputElement | null => form.querySelector(`input[name="${name}"]`);
  const [name, password] = [field('signInName'), field('password')];
  const at = document.activeElement;
  const typed: FirstTyped = {
    signInName: name?.value ?? '',
    password: password?.value ?? '',
    at: at === null ? null : at === name ? 'signInName' : at === password ? 'password' : null,
    sent: SENT in form.dataset,
  };
  form.remove();
  goOn(typed);
}

/** Takes it off the page where nobody is to sign in. */
export const dropFirstForm = (): void => standing()?.remove();
