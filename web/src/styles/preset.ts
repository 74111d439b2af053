import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

/** PrimeVue's controls in our colours: every token points at one of tokens.css, so that a theme is only another set there. */
export const preset = definePreset(Aura, {
  primitive: {
    borderRadius: { none: '0', xs: '2px', sm: '3px', md: '3px', lg: '3px', xl: '3px' },
  },
  components: {
    button: {
      colorScheme: {
        light: {
          outlined: {
            primary: {
              borderColor: 'var(--line-strong)',
              color: 'var(--ink)',
              hoverBackground: 'var(--chalk)',
            },
          },
          text: { primary: { color: 'var(--ink)', hoverBackground: 'var(--chalk)' } },
        },
      },
    },
    toggleswitch: {
      colorScheme: {
        light: {
          root: { background: 'var(--ink-soft)', hoverBackground: 'var(--ink-soft)' },
          handle: { background: 'var(--paper)', hoverBackground: 'var(--paper)' },
        },
      },
    },
  },
  semantic: {
    transitionDuration: '0s',
    focusRing: { width: '3px', style: 'solid', color: 'var(--pin)', offset: '1px' },
    formField: {
      paddingX: '0.6rem',
      paddingY: '0.4rem',
      borderRadius: 'var(--radius)',
      shadow: 'none',
    },
    overlay: {
      select: { shadow: 'none' },
      popover: { shadow: 'none' },
      modal: { shadow: 'none', borderRadius: 'var(--radius)' },
      navigation: { shadow: 'none' },
    },
    colorScheme: {
      light: {
        primary: {
          color: 'var(--accent)',
          contrastColor: 'var(--accent-ink)',
          hoverColor: 'var(--accent)',
          activeColor: 'var(--accent)',
        },
        text: {
          color: 'var(--ink)',
          hoverColor: 'var(--ink)',
          mutedColor: 'var(--ink-soft)',
          hoverMutedColor: 'var(--ink)',
        },
        content: {
          background: 'var(--sheet)',
          hoverBackground: 'var(--chalk)',
          borderColor: 'var(--line)',
          color: 'var(--ink)',
        },
        formField: {
          background: 'var(--chalk)',
          borderColor: 'var(--line)',
          hoverBorderColor: 'var(--line-strong)',
          focusBorderColor: 'var(--line-strong)',
          color: 'var(--ink)',
          placeholderColor: 'var(--ink-soft)',
          iconColor: 'var(--ink-soft)',
        },
        overlay: {
          select: { background: 'var(--sheet)', borderColor: 'var(--line-strong)', color: 'var(--ink)' },
          popover: { background: 'var(--sheet)', borderColor: 'var(--line-strong)', color: 'var(--ink)' },
          modal: { background: 'var(--sheet)', borderColor: 'var(--line-strong)', color: 'var(--ink)' },
        },
        list: {
          option: {
            focusBackground: 'var(--chalk)',
            selectedBackground: 'var(--accent)',
            selectedFocusBackground: 'var(--accent)',
            color: 'var(--ink)',
            focusColor: 'var(--ink)',
            selectedColor: 'var(--accent-ink)',
            selectedFocusColor: 'var(--accent-ink)',
          },
        },
      },
    },
  },
})
