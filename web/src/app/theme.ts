import { createTheme, type CSSVariablesResolver } from '@mantine/core'

/** Enamel in the light, lamp in the dark; the tokens themselves are in tokens.css. */
export const theme = createTheme({
  fontFamily: "'Source Sans 3 Variable', sans-serif",
  headings: { fontFamily: "'Libre Caslon Display', serif", fontWeight: '400' },
  primaryColor: 'steel',
  primaryShade: { light: 7, dark: 3 },
  autoContrast: true,
  respectReducedMotion: true,
  defaultRadius: 'sm',
  colors: {
    steel: [
      '#f0f0f8',
      '#dcddf0',
      '#c2c4ec',
      '#a9adf0',
      '#8b8fd8',
      '#6b6fbf',
      '#474b9c',
      '#2c2f78',
      '#22255f',
      '#191b47',
    ],
  },
  components: {
    Button: { defaultProps: { size: 'md' } },
    TextInput: { defaultProps: { size: 'md' } },
    Textarea: { defaultProps: { size: 'md' } },
    NumberInput: { defaultProps: { size: 'md' } },
    Select: { defaultProps: { size: 'md', allowDeselect: false } },
    NativeSelect: { defaultProps: { size: 'md' } },
    Modal: { defaultProps: { centered: true } },
  },
})

const shared = {
  '--mantine-color-body': 'var(--ground)',
  '--mantine-color-text': 'var(--ink)',
  '--mantine-color-dimmed': 'var(--quiet)',
  '--mantine-color-placeholder': 'var(--quiet)',
  '--mantine-color-default': 'var(--paper)',
  '--mantine-color-default-hover': 'var(--deep)',
  '--mantine-color-default-color': 'var(--ink)',
  '--mantine-color-default-border': 'var(--line)',
  '--mantine-color-anchor': 'var(--steel)',
  '--mantine-color-error': 'var(--madder)',
  '--mantine-color-disabled': 'var(--deep)',
  '--mantine-color-disabled-color': 'var(--quiet)',
  '--mantine-color-disabled-border': 'var(--line)',
}

export const cssVariables: CSSVariablesResolver = () => ({ variables: {}, light: shared, dark: shared })
