import type { GlobalThemeOverrides } from 'naive-ui'

const ink = '#1b1f1e'
const quiet = '#5a6461'
const edge = '#cbd2ce'
const frame = '#8b9692'
const rose = '#b5304a'
const roseDeep = '#8e1f38'
const panel = '#ffffff'

/** Naive UI in the cold-room look: enamel, cast iron, cured rose for what acts. Colors are those of styles.css. */
export const theme: GlobalThemeOverrides = {
  common: {
    fontFamily: "'Archivo Variable', sans-serif",
    fontFamilyMono: "'Archivo Variable', sans-serif",
    fontSize: '15px',
    fontSizeSmall: '14px',
    fontSizeMedium: '15px',
    primaryColor: rose,
    primaryColorHover: roseDeep,
    primaryColorPressed: roseDeep,
    primaryColorSuppl: rose,
    errorColor: rose,
    errorColorHover: roseDeep,
    successColor: '#1a6b50',
    warningColor: '#b7791f',
    textColorBase: ink,
    textColor1: ink,
    textColor2: ink,
    textColor3: quiet,
    placeholderColor: quiet,
    borderColor: frame,
    dividerColor: edge,
    borderRadius: '4px',
    borderRadiusSmall: '4px',
    heightSmall: '44px',
    heightMedium: '44px',
  },
  Button: {
    fontWeight: '640',
    paddingSmall: '0 12px',
    paddingMedium: '0 18px',
    color: panel,
    border: `1px solid ${ink}`,
    textColorHover: ink,
    textColorFocus: ink,
    textColorPressed: ink,
    borderHover: `1px solid ${ink}`,
    borderFocus: `1px solid ${ink}`,
    borderPressed: `1px solid ${ink}`,
    borderDisabled: `1px solid ${frame}`,
    colorHover: '#e9ece9',
    colorFocus: panel,
    colorPressed: edge,
    opacityDisabled: '0.6',
  },
  Input: { borderHover: `1px solid ${ink}`, borderFocus: `1px solid ${rose}` },
  Checkbox: {
    sizeMedium: '20px',
    border: `1px solid ${frame}`,
    colorChecked: ink,
    borderChecked: `1px solid ${ink}`,
  },
  Radio: { buttonBorderRadius: '4px', buttonTextColorActive: panel, buttonColorActive: ink },
  Form: {
    labelFontWeight: '600',
    labelPaddingVertical: '0 0 3px 0',
    labelHeightSmall: '20px',
    blankHeightSmall: '44px',
    feedbackHeightSmall: '18px',
    feedbackPadding: '0',
    feedbackFontSizeSmall: '13px',
    feedbackTextColor: quiet,
    feedbackTextColorError: roseDeep,
  },
  Collapse: { titleFontWeight: '400', titlePadding: '0', itemMargin: '0', dividerColor: 'transparent' },
  Tabs: {
    tabPaddingSmallLine: '0',
    tabGapSmallLine: '0',
    tabFontSizeSmall: '15px',
    panePaddingSmall: '0',
    tabBorderColor: edge,
    barColor: rose,
  },
  Table: {
    thColor: panel,
    tdColor: panel,
    thFontWeight: '680',
    thPaddingMedium: '4px 12px 4px 0',
    tdPaddingMedium: '4px 12px 4px 0',
    borderColor: '#e4e8e6',
  },
}
