import { FIRST_FORM, SENT } from '../src/shell/first-form';

/**
 * What the page of a first visit can do before the program is there. It runs before anything is drawn.
 */

if (matchMedia('(prefers-color-scheme: dark)').matches) document.documentElement.classList.add('dark');

let broken = false;

/** Writes on the form what became of it. */
function say(label: string, words: string): void {
  const [button, status] = ['button', '[role="status"]'].map((css) => document.querySelector(`#${FIRST_FORM} ${css}`));
  if (button) button.textContent = label;
  if (!status) return;
  status.textContent = words;
  status.classList.toggle('text-soft', !broken);
  status.classList.toggle('text-danger', broken);
}

document.addEventListener('submit', (event) => {
  const form = document.getElementById(FIRST_FORM);
  if (!form?.contains(event.target as Node)) return;
  event.preventDefault();
  if (broken) return location.reload();
  form.dataset[SENT] = '';
  say('Signing in', 'Yosoku is still loading. It signs you in as soon as it is here.');
});

// Errors of what a page loads do not rise to the window: they are met on the way down.
addEventListener(
  'error',
  ({ target }) => {
    if (!(target instanceof HTMLScriptElement)) return;
    broken = true;
    say('Load again', 'Yosoku could not be loaded. Is this device still on the shop’s network?');
  },
  true,
);
