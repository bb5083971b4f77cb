const plugin = require('tailwindcss/plugin');
const { palette } = require('./src/ui/palette');

const variables = (colours) => Object.fromEntries(Object.entries(colours).map(([name, hex]) => [`--${name}`, hex]));

/** What stands there until a font has come. */
const WHILE_IT_LOADS = ['"Arial Narrow"', 'system-ui', 'sans-serif'];

/** @type {import('tailwindcss').Config} */
module.exports = {
  content: ['./app/**/*.{ts,tsx}', './src/**/*.{ts,tsx}', './first-page/form.html'],
  presets: [require('nativewind/preset')],
  darkMode: 'class',
  theme: {
    // `roomy`: two short labels fit beside each other; a phone at 200 % zoom has less than that.
    // `wide`: the parts of a station stand side by side; the same figure as in src/ui/layout.ts.
    screens: { roomy: '300px', wide: '1000px' },
    colors: {
      transparent: 'transparent',
      ...Object.fromEntries(Object.keys(palette.dye).map((name) => [name, `var(--${name})`])),
    },
    fontFamily: {
      // A family for each weight: a browser would otherwise thicken the letters itself.
      sans: ['BarlowSemiCondensed_400Regular', ...WHILE_IT_LOADS],
      medium: ['BarlowSemiCondensed_500Medium', ...WHILE_IT_LOADS],
      bold: ['BarlowSemiCondensed_600SemiBold', ...WHILE_IT_LOADS],
      figures: ['Barlow_500Medium', ...WHILE_IT_LOADS],
      'figures-bold': ['Barlow_600SemiBold', ...WHILE_IT_LOADS],
    },
  },
  plugins: [
    plugin(({ addBase }) =>
      addBase({
        ':root': variables(palette.sheet),
        '.dark': variables(palette.dye),
        'html, body': { backgroundColor: 'var(--ground)' },
        ':focus-visible': { outline: '3px solid var(--brass)', outlineOffset: '2px' },
        // Inside the edge: a scrolling frame would cut it off.
        'input:focus-visible': { outlineOffset: '-3px' },
      }),
    ),
  ],
};
