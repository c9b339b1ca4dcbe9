import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

/** The blue of the layout dye, from tint to shade, where the library mixes its own states. */
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

/** The roles of the style sheet: each has its colour by day and in the bay there, and nowhere else. */
const ROLES = {
  surface: PAPER,
  primary: { color: 'var(--dye)', contrastColor: 'var(--on-dye)', hoverColor: 'var(--dye)', activeColor: 'var(--dye)' },
  highlight: { background: 'var(--dye-tint)', focusBackground: 'var(--dye-tint)', color: 'var(--ink)', focusColor: 'var(--ink)' },
  formField: {
    background: 'var(--sheet)',
    disabledBackground: 'var(--paper)',
    disabledColor: 'var(--soft)',
    borderColor: 'var(--line)',
    hoverBorderColor: 'var(--soft)',
    focusBorderColor: 'var(--dye)',
    invalidBorderColor: 'var(--amber-edge)',
    color: 'var(--ink)',
    placeholderColor: 'var(--soft)',
    invalidPlaceholderColor: 'var(--amber)',
    iconColor: 'var(--soft)',
    shadow: 'none',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--soft)', hoverMutedColor: 'var(--ink)' },
  content: {
    background: 'var(--sheet)',
    hoverBackground: 'var(--fine)',
    borderColor: 'var(--line)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  overlay: {
    select: { background: 'var(--sheet)', borderColor: 'var(--soft)', color: 'var(--ink)' },
    popover: { background: 'var(--sheet)', borderColor: 'var(--soft)', color: 'var(--ink)' },
    modal: { background: 'var(--sheet)', borderColor: 'var(--line)', color: 'var(--ink)' },
  },
  list: {
    option: {
      focusBackground: 'var(--fine)',
      selectedBackground: 'var(--dye-tint)',
      selectedFocusBackground: 'var(--dye-tint)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
      selectedColor: 'var(--ink)',
      selectedFocusColor: 'var(--ink)',
    },
  },
};

/** The quiet button: ink on the sheet, within a hairline. */
const QUIET = {
  ...{ background: 'var(--sheet)', hoverBackground: 'var(--sheet)', activeBackground: 'var(--fine)' },
  ...{ borderColor: 'var(--line)', hoverBorderColor: 'var(--ink)', activeBorderColor: 'var(--ink)' },
  ...{ color: 'var(--ink)', hoverColor: 'var(--ink)', activeColor: 'var(--ink)' },
  focusRing: { color: 'var(--dye)', shadow: 'none' },
};
const BUTTON = {
  root: { primary: { focusRing: { color: 'var(--dye)', shadow: 'none' } }, secondary: QUIET },
  text: {
    primary: { hoverBackground: 'var(--dye-tint)', activeBackground: 'var(--dye-tint)', color: 'var(--dye)' },
    secondary: { hoverBackground: 'var(--fine)', activeBackground: 'var(--fine)', color: 'var(--ink)' },
  },
};

/** Ink on warm paper: hairlines, small corners, one blue. */
export const PRESET = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '1px', sm: '2px', md: '2px', lg: '3px', xl: '3px' } },
  semantic: {
    primary: DYE,
    transitionDuration: '0s',
    disabledOpacity: '0.55',
    focusRing: { width: '2px', style: 'solid', color: 'var(--dye)', offset: '1px' },
    formField: {
      ...{ paddingX: '8px', paddingY: '5px', transitionDuration: '0s' },
      focusRing: { width: '2px', style: 'solid', color: 'var(--dye)', offset: '1px', shadow: 'none' },
      sm: { fontSize: '12.5px', paddingX: '6px', paddingY: '3px' },
    },
    list: { padding: '3px', gap: '0', option: { padding: '5px 8px' } },
    overlay: {
      select: { shadow: '0 4px 14px rgb(0 0 0 / 22%)' },
      popover: { shadow: '0 4px 14px rgb(0 0 0 / 22%)', padding: '8px' },
      modal: { shadow: '0 10px 40px rgb(0 0 0 / 32%)', padding: '16px' },
    },
    colorScheme: { light: ROLES, dark: ROLES },
  },
  components: {
    button: {
      root: { paddingX: '12px', paddingY: '6px', gap: '5px', iconOnlyWidth: '28px', label: { fontWeight: '500' } },
      colorScheme: { light: BUTTON, dark: BUTTON },
    },
    checkbox: { root: { width: '16px', height: '16px' }, icon: { size: '11px' } },
    radiobutton: { root: { width: '16px', height: '16px' }, icon: { size: '8px' } },
    dialog: { title: { fontSize: '18px', fontWeight: '600' } },
    select: { dropdown: { width: '24px' } },
    datepicker: { dropdown: { width: '26px' } },
    datatable: {
      root: { transitionDuration: '0s' },
      headerCell: {
        color: 'var(--soft)',
        background: 'var(--paper)',
        hoverBackground: 'var(--paper)',
        padding: '4px 8px 5px 0',
        gap: '4px',
      },
      bodyCell: { padding: '4px 8px 4px 0' },
      footerCell: { background: 'transparent', padding: '4px 8px 4px 0' },
      row: { background: 'transparent', hoverBackground: 'var(--fine)' },
      columnTitle: { fontWeight: '500' },
      colorScheme: {
        light: { root: { borderColor: 'var(--fine)' }, bodyCell: { selectedBorderColor: 'var(--fine)' } },
        dark: { root: { borderColor: 'var(--fine)' }, bodyCell: { selectedBorderColor: 'var(--fine)' } },
      },
    },
    tooltip: {
      root: { padding: '5px 8px', maxWidth: '320px' },
      colorScheme: {
        light: { root: { background: 'var(--band)', color: 'var(--on-band)' } },
        dark: { root: { background: 'var(--band)', color: 'var(--on-band)' } },
      },
    },
  },
});
