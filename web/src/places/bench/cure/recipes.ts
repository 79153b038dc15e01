import type { Schemas } from '@/shared/api/client'

export type Recipe = Schemas['RecipeIn']
export type Ingredient = Schemas['IngredientIn']
export type School = Recipe['school']
export type CuredPiece = Schemas['CuredPieceIn']

export const ingredient = (name = '', amount = '', spoon = ''): Ingredient => ({
  name,
  amount,
  spoon,
  stage: 1,
})

type SchoolFacts = Schemas['SchoolOut']
/** What decides the curing salt to begin with: what the piece is cured as, its skin, and what it becomes. */
export type Cured = Pick<Schemas['DoseOut'], 'product' | 'skin'> & {
  course: Schemas['DoseOut']['courses'][number]
}

/** As it is set on the desk, else as it is known of the piece. */
export function curedAs(
  laid: Partial<CuredPiece>,
  known: (Omit<Cured, 'skin'> & { skin: string }) | undefined,
): Cured {
  const { product = 'bacon', skin = '', course = null } = known ?? {}
  return {
    product: laid.product || product,
    skin: (laid.skin || skin) === 'on' ? 'on' : 'off',
    course: laid.course || course,
  }
}

const schoolOf = (schools: SchoolFacts[], key: School): SchoolFacts => {
  const found = schools.find((one) => one.key === key)
  if (!found) throw new Error(`no curing method ${key}`)
  return found
}

/** Whether recipes of a school say something: a pump, a packet's rate, a tub … */
export const shows = (schools: SchoolFacts[], key: School, field: SchoolFacts['shows'][number]): boolean =>
  schoolOf(schools, key).shows.includes(field)

/** A recipe to begin with: the usual amounts of its school, and the usual curing salt for the piece. */
export function blankRecipe(schools: SchoolFacts[], school: School, piece: Cured): Recipe {
  const { begins, doses } = schoolOf(schools, school)
  const dose = doses.find(
    (one) => one.product === piece.product && one.skin === piece.skin && one.courses.includes(piece.course),
  )
  const { agent, target, agent_amount } = dose ?? begins
  return { ...(JSON.parse(JSON.stringify(begins)) as Recipe), agent, target, agent_amount }
}

/** Another school: what was added stays as it was typed. */
export function changeSchool(schools: SchoolFacts[], recipe: Recipe, school: School, piece: Cured): Recipe {
  const fresh = blankRecipe(schools, school, piece)
  return { ...fresh, extras: recipe.extras, hot_part: recipe.hot_part }
}

/** The piece has become something else: the curing salt that nobody changed follows, the rest stays as typed. */
export function changePiece(schools: SchoolFacts[], recipe: Recipe, before: Cured, now: Cured): Recipe {
  const was = blankRecipe(schools, recipe.school, before)
  const { agent, target, agent_amount } = blankRecipe(schools, recipe.school, now)
  const isUsual =
    recipe.agent === was.agent && recipe.target === was.target && recipe.agent_amount === was.agent_amount
  return isUsual ? { ...recipe, agent, target, agent_amount } : recipe
}
