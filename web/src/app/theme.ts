import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

const DYE = {
  50: '#f3f4fb',
  100: '#e6e8f6',
  200: '#c5cbec',
  300: '#a3addf',
  400: '#6d7cc4',
  500: '#2e3f9e',
  600: '#2e3f9e',
  700: '#26348a',
  800: '#1e2a70',
  900: '#182258',
  950: '#10142e',
};
const PAPER = {
  0: '#fffefb',
  50: '#f5f2ea',
  100: '#eae5d9',
  200: '#d8d2c4',
  300: '#bfb9ab',
  400: '#8f938f',
  500: '#5b646b',
  600: '#4a5359',
  700: '#323b41',
  800: '#252d33',
  900: '#1b2227',
  950: '#14191d',
};

/** Ink on warm paper: hairlines, small corners, one blue. Every token used comes from the same palette as the style sheet. */
export const PRESET = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '1px', sm: '2px', md: '2px', lg: '3px', xl: '3px' } },
  semantic: {
    primary: DYE,
    focusRing: { width: '2px', style: 'solid', color: 'var(--dye)', offset: '1px' },
    formField: { paddingX: '0.5rem', paddingY: '0.35rem', sm: { fontSize: '13px' } },
    colorScheme: {
      light: {
        surface: PAPER,
        primary: { color: '{primary.500}', contrastColor: '#ffffff', hoverColor: '{primary.700}', activeColor: '{primary.800}' },
        formField: {
          background: '#fffefb',
          borderColor: '#d8d2c4',
          hoverBorderColor: '#5b646b',
          color: '#1b2227',
          placeholderColor: '#5b646b',
          shadow: 'none',
        },
        text: { color: '#1b2227', mutedColor: '#5b646b' },
        content: { background: '#fffefb', borderColor: '#d8d2c4', color: '#1b2227' },
        overlay: { select: { shadow: '0 4px 14px rgb(27 34 39 / 18%)' }, modal: { shadow: '0 10px 40px rgb(27 34 39 / 28%)' } },
      },
      dark: {
        surface: PAPER,
        primary: { color: '#93a2f5', contrastColor: '#10142e', hoverColor: '#a9b5f8', activeColor: '#bcc6fa' },
        formField: {
          background: '#14191d',
          borderColor: '#3a454c',
          hoverBorderColor: '#a3adb3',
          color: '#eeeae0',
          placeholderColor: '#a3adb3',
          shadow: 'none',
        },
        text: { color: '#eeeae0', mutedColor: '#a3adb3' },
        content: { background: '#1b2227', borderColor: '#3a454c', color: '#eeeae0' },
      },
    },
  },
});
