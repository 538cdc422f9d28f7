import { theme as antd, type ThemeConfig } from 'antd';
import tokens from './tokens.json';

/** The one place where colours and type are settled; styles use the variables made from it. */
export type Mode = 'light' | 'dark';
type Tokens = (typeof tokens)['light'];

export const FONT =
  "'Hanken Grotesk Variable', system-ui, -apple-system, 'Segoe UI', Roboto, sans-serif";

/** Puts every token on the page as a CSS variable: pineSoft becomes --pine-soft. */
export function applyVariables(mode: Mode): void {
  const root = document.documentElement;
  for (const [name, value] of Object.entries(tokens[mode])) {
    root.style.setProperty('--' + name.replace(/([A-Z0-9])/g, '-$1').toLowerCase(), value);
  }
  root.style.setProperty('--font', FONT);
  root.style.colorScheme = mode;
}

/** Where a person wants less motion there is none: what waited for its end would never come. */
function moves(): boolean {
  return !window.matchMedia('(prefers-reduced-motion: reduce)').matches;
}

export function themeFor(mode: Mode): ThemeConfig {
  const t: Tokens = tokens[mode];
  return {
    algorithm: mode === 'dark' ? antd.darkAlgorithm : antd.defaultAlgorithm,
    token: {
      colorPrimary: t.pineFill,
      colorLink: t.pine,
      colorLinkHover: t.pine,
      colorLinkActive: t.pine,
      colorInfo: t.pine,
      colorError: t.brick,
      colorWarning: t.amber,
      colorText: t.ink,
      colorTextSecondary: t.ink2,
      colorTextTertiary: t.ink3,
      colorTextPlaceholder: t.ink3,
      colorTextDescription: t.ink2,
      colorBgBase: t.sheet,
      colorBgContainer: t.cell,
      colorBgElevated: t.cell,
      colorBgLayout: t.paper,
      colorBorder: t.line,
      colorBorderSecondary: t.line2,
      controlItemBgActive: t.pineSoft,
      controlItemBgHover: t.group,
      fontFamily: FONT,
      fontSize: 13,
      borderRadius: 6,
      controlHeight: 32,
      wireframe: false,
      motion: moves(),
      boxShadow: 'none',
    },
    components: {
      Button: {
        primaryShadow: 'none',
        defaultShadow: 'none',
        fontWeight: 600,
        borderColorDisabled: t.line,
      },
      Segmented: { itemSelectedBg: t.pineSoft, itemSelectedColor: t.ink, trackBg: t.cell },
      Select: { optionSelectedBg: t.pineSoft, optionSelectedColor: t.ink },
      Form: { labelColor: t.ink2, verticalLabelPadding: '0 0 3px', itemMarginBottom: 12 },
    },
  };
}
