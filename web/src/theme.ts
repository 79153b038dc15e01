import type { GlobalThemeOverrides } from 'naive-ui'

const ink = '#1B1F1E'
const quiet = '#5A6461'
const edge = '#CBD2CE'
const rose = '#B5304A'

/** Naive UI in the cold-room look: enamel, cast iron, cured rose for what acts. */
export const theme: GlobalThemeOverrides = {
  common: {
    fontFamily: "'Archivo Variable', sans-serif",
    fontFamilyMono: "'Archivo Variable', sans-serif",
    fontSize: '15px',
    primaryColor: rose,
    primaryColorHover: '#9C2840',
    primaryColorPressed: '#862236',
    primaryColorSuppl: rose,
    errorColor: rose,
    errorColorHover: rose,
    successColor: '#1A6B50',
    warningColor: '#B7791F',
    textColorBase: ink,
    textColor1: ink,
    textColor2: ink,
    textColor3: quiet,
    placeholderColor: '#67716E',
    borderColor: '#8B9692',
    dividerColor: edge,
    borderRadius: '4px',
    heightMedium: '44px',
    heightSmall: '36px',
  },
  Button: { fontWeight: '600', paddingMedium: '0 18px' },
  Input: { borderHover: `1px solid ${ink}`, borderFocus: `1px solid ${rose}` },
  Radio: { buttonBorderRadius: '4px', buttonTextColorActive: '#FFFFFF', buttonColorActive: ink },
}
