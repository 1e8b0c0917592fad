import { createTheme } from '@mui/material/styles';
import { PALETTES } from './palette';

const scheme = (name: 'light' | 'dark') => {
  const p = PALETTES[name];
  return {
    palette: {
      mode: name,
      primary: { main: p.text, contrastText: p.surface },
      error: { main: p.fails },
      background: { default: p.page, paper: p.surface },
      text: { primary: p.text, secondary: p.quiet },
      divider: p.rule,
    },
  };
};

/** MUI in Melto's looks: achromatic, 2 px corners, no shadows, no ripple. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-theme' },
  colorSchemes: { light: scheme('light'), dark: scheme('dark') },
  shape: { borderRadius: 2 },
  shadows: Array(25).fill('none') as never,
  typography: {
    fontFamily: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif',
    fontSize: 13,
    button: { textTransform: 'none', fontWeight: 600, fontSize: 15 },
    body1: { fontSize: 15 },
    body2: { fontSize: 13 },
  },
  transitions: { create: () => 'none' },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true, disableTouchRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, variant: 'outlined' },
      styleOverrides: {
        root: { padding: '4px 14px', minWidth: 0, lineHeight: '22px', whiteSpace: 'nowrap' },
      },
    },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none', border: '1px solid var(--rule)' } } },
    MuiOutlinedInput: { styleOverrides: { root: { background: 'var(--surface)' } } },
    MuiFormHelperText: { styleOverrides: { root: { fontSize: 13, marginLeft: 2 } } },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
    MuiTooltip: { defaultProps: { enterDelay: 400 } },
  },
});
