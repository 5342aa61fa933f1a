/** Workshop paper and ink, as tokens of the component kit. */
import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

const hand = {
  50: '#eaf3f3',
  100: '#cfe4e4',
  200: '#a3cbcc',
  300: '#72adb0',
  400: '#3f8d92',
  500: '#0e6f76',
  600: '#0c6067',
  700: '#0a4f55',
  800: '#083f44',
  900: '#062f33',
  950: '#041f22',
}

export const theme = {
  preset: definePreset(Aura, {
    components: {
      // as high as the plain fields beside it; what nothing chosen means is as readable as a choice
      select: { root: { placeholderColor: '{text.color}', sm: { fontSize: '0.9rem', paddingX: '0.5rem', paddingY: '0.2rem' } } },
      datatable: { headerCell: { sm: { padding: '0.15rem 0.4rem' } }, bodyCell: { sm: { padding: '0.15rem 0.4rem' } } },
    },
    semantic: {
      primary: hand,
      // nothing fades: a frame drawn for a fade is a frame the next result waits for
      transitionDuration: '0s',
      formField: { transitionDuration: '0s' },
      focusRing: { width: '2px', style: 'solid', color: '{primary.color}', offset: '1px' },
      colorScheme: {
        light: {
          surface: {
            0: '#fdfaf4',
            50: '#f8f3e9',
            100: '#f1eadc',
            200: '#e4dac8',
            300: '#d1c4ad',
            400: '#ad9e86',
            500: '#7d705d',
            600: '#5f5546',
            700: '#463e33',
            800: '#2f2a22',
            900: '#211d17',
            950: '#15120e',
          },
          text: { color: '#211d17', mutedColor: '#5f5546' },
        },
        dark: {
          primary: { color: '{primary.300}', contrastColor: '{surface.950}', hoverColor: '{primary.200}' },
          surface: {
            0: '#fdfaf4',
            50: '#f1eadc',
            100: '#e4dac8',
            200: '#d1c4ad',
            300: '#b5a78f',
            400: '#93866f',
            500: '#6d6252',
            600: '#52493d',
            700: '#3b342b',
            800: '#2a251f',
            900: '#211d18',
            950: '#181511',
          },
        },
      },
    },
  }),
  options: { darkModeSelector: '.dark', cssLayer: { name: 'kit', order: 'kit, ours' } },
}
