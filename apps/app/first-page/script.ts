import { FIRST_FORM, SENT } from '../src/shell/first-form';

/**
 * What the page of a first visit can do before the program is there. It runs before anything is drawn.
 */

if (matchMedia('(prefers-color-scheme: dark)').matches) document.documentElement.classList.add('dark');

const say = (words: string): void => {
  const status = document.querySelector(`#${FIRST_FORM} [role="status"]`);
  if (status) status.textContent = words;
};

document.addEventListener('submit', (event) => {
  const form = document.getElementById(FIRST_FORM);
  if (!form?.contains(event.target as Node)) return;
  event.preventDefault();
  form.dataset[SENT] = '';
  const button = form.querySelector('button');
  if (button) button.textContent = 'Signing in';
  say('Yosoku is still loading. It signs you in as soon as it is here.');
});

// Errors of what a page loads do not rise to the window: they are met on the way down.
addEventListener(
  'error',
  ({ target }) => {
    if (target instanceof HTMLScriptElement)
      say('Yosoku could not be loaded. Is this device still on the shop’s network? Then load the page again.');
  },
  true,
);
