import { createTheme } from '@mui/material'

const family = '"IBM Plex Sans", sans-serif'

/** Paper and ink; the dark scheme is chalk on slate. The same colours stand in tokens.css for what is drawn; a test holds them equal. */
export const colorSchemes = {
  light: {
    palette: {
      background: { default: '#F4F1EA', paper: '#FCFBF7' },
      text: { primary: '#22303C', secondary: '#55626E' },
      primary: { main: '#22303C', contrastText: '#FCFBF7' },
      secondary: { main: '#8E2B3C' },
      error: { main: '#8E2B3C' },
      warning: { main: '#8A5606' },
      success: { main: '#4B6B35' },
      divider: '#C9C3B5',
    },
  },
  dark: {
    palette: {
      background: { default: '#1B232A', paper: '#222C34' },
      text: { primary: '#E8EAE4', secondary: '#AEB9C0' },
      primary: { main: '#E8EAE4', contrastText: '#1B232A' },
      secondary: { main: '#EB94A2' },
      error: { main: '#EB94A2' },
      warning: { main: '#E3B565' },
      success: { main: '#A9CB8B' },
      divider: '#4A5761',
    },
  },
}

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-scheme' },
  colorSchemes,
  shape: { borderRadius: 0 },
  typography: { fontFamily: family, fontSize: 13, htmlFontSize: 16, button: { textTransform: 'none', fontWeight: 400 } },
  transitions: { create: () => 'none' },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { size: 'small', disableElevation: true, variant: 'outlined' },
      styleOverrides: {
        root: { paddingBlock: 3, minWidth: 0, lineHeight: 1.5, whiteSpace: 'nowrap', flex: 'none' },
        outlined: { borderColor: 'currentColor' },
      },
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiMenu: { styleOverrides: { paper: { border: '1px solid var(--ink)' } } },
    MuiDialog: { styleOverrides: { paper: { border: '1px solid var(--ink)', boxShadow: 'none' } } },
    MuiMenuItem: { styleOverrides: { root: { fontSize: 13, minHeight: 30 } } },
    MuiTooltip: {
      styleOverrides: {
        tooltip: { backgroundColor: 'var(--ink)', color: 'var(--sheet)', fontSize: 12, borderRadius: 0 },
      },
    },
    MuiCssBaseline: { styleOverrides: { body: { fontSize: 13 } } },
  },
})
