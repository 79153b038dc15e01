/** What is done in a step, as a cook says it: "slicing", "the smoke". */
const doing: Record<string, string> = {
  trim: 'trimming',
  slice: 'slicing',
  wash: 'washing',
  pull: 'pulling',
  pump: 'pumping',
  hang: 'hanging',
  rest: 'resting',
  chill: 'chilling',
  cook: 'cooking',
  steam: 'steaming',
  dice: 'dicing',
  'dry-age': 'dry-aging',
}
/** "slicing", "the smoke" */
export const stepWord = (kind: string): string => doing[kind] ?? `the ${kind}`
/** "Record slicing" */
export const recordWord = (kind: string): string => `Record ${stepWord(kind)}`
/** "after slicing", "after the smoke" */
export const afterWord = (kind: string): string => `after ${stepWord(kind)}`
/** "Weigh the slices", "Weigh after the smoke" */
export const weighWord = (kind: string): string =>
  kind === 'slice' ? 'Weigh the slices' : `Weigh ${afterWord(kind)}`
