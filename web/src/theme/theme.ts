import { createTheme, type MantineColorsTuple } from "@mantine/core";

const ink: MantineColorsTuple = [
  "#eef1f8",
  "#d9dfec",
  "#b3bfd8",
  "#8a9cc3",
  "#677fb1",
  "#506ba6",
  "#4261a2",
  "#33518e",
  "#1f3a6b",
  "#1b2540",
];

/** Chart paper and ink. */
export const theme = createTheme({
  fontFamily: "'Atkinson Hyperlegible Next', sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Mono', monospace",
  headings: { fontFamily: "'Atkinson Hyperlegible Next', sans-serif", fontWeight: "600" },
  colors: { ink },
  primaryColor: "ink",
  primaryShade: { light: 8, dark: 5 },
  defaultRadius: "sm",
  respectReducedMotion: true,
  fontSizes: { xs: "0.78rem", sm: "0.86rem", md: "0.95rem", lg: "1.1rem", xl: "1.3rem" },
  components: {
    Modal: { defaultProps: { closeButtonProps: { "aria-label": "Close" } } },
    // A dialog's head is no banner of the page.
    ModalHeader: { defaultProps: { component: "div" } },
    Alert: { defaultProps: { closeButtonLabel: "Close" } },
  },
});
