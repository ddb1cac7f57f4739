import { Autocomplete, Button, Drawer, Menu, Modal, Notification, Select, TagsInput, createTheme, type MantineColorsTuple } from '@mantine/core';

/** Ten shades, lightest first. Filled controls use ink by day and paper by night; gold only ever means "sure". */
const ink: MantineColorsTuple = ['#f4eee2', '#e6ded0', '#cfc7ba', '#aeb2b6', '#8a929b', '#6b7580', '#56616e', '#3d4854', '#2b333d', '#20262e'];

/** Night surfaces, from text to ground; Mantine takes the backgrounds of its fields and menus from them. */
const dark: MantineColorsTuple = ['#efe7d8', '#d5cfc3', '#a9b1bc', '#7f8894', '#3a424d', '#2b323b', '#232930', '#1b2027', '#171b21', '#14181d'];

/** The list itself scrolls, and is led from the field: a box around it would be one that no key comes to. */
const LISTED = { defaultProps: { withScrollArea: false }, styles: { options: { maxHeight: 220, overflowY: 'auto' as const } } };

export const theme = createTheme({
  colors: { ink, dark },
  primaryColor: 'ink',
  primaryShade: { light: 9, dark: 1 },
  autoContrast: true,
  luminanceThreshold: 0.35,
  fontFamily: '"Instrument Sans Variable", system-ui, sans-serif',
  headings: { fontFamily: '"Source Serif 4 Variable", Georgia, serif', fontWeight: '650' },
  defaultRadius: 'md',
  components: {
    // A cross alone says nothing to those who listen.
    Notification: Notification.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close this message' } } }),
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    Drawer: Drawer.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    // What takes the first focus there is no item of the menu.
    Menu: Menu.extend({ defaultProps: { withInitialFocusPlaceholder: false } }),
    Select: Select.extend(LISTED),
    Autocomplete: Autocomplete.extend(LISTED),
    TagsInput: TagsInput.extend(LISTED),
    Button: Button.extend({
      // By night the primary colour is paper: the words on it must be ink.
      vars: (_, props) => (props.variant === undefined || props.variant === 'filled' ? { root: { '--button-color': 'var(--page)' } } : { root: {} }),
    }),
  },
  cursorType: 'pointer',
});
