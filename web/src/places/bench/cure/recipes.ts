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

/** A recipe to begin with: the usual amounts of the trade for its school. */
export function blankRecipe(school: School = 'measured'): Recipe {
  const recipe: Recipe = {
    name: '',
    school,
    salt: ingredient('coarse salt', '2.5 %', 'dense_flake'),
    sugar: ingredient('brown sugar', '1 %', 'brown_sugar'),
    agent: 'no_1',
    agent_nitrite: '',
    agent_nitrate: '',
    target: '150',
    agent_amount: '',
    extras: [],
    water: '',
    pump: '',
    pick_up: '',
    spare: '',
    box: '',
    uptake: '',
    hot_part: '',
    hot_water: '',
    cold_water: '',
    mixed_water: '',
    mixed_salt: '',
    mixed_sugar: '',
    mixed_agent: '',
  }
  return { ...recipe, ...own[school] }
}

/** What differs from a measured dry cure, school by school. */
const own: Record<School, Partial<Recipe>> = {
  measured: {},
  spoon: {
    salt: ingredient('coarse salt', '2 tsp/lb', 'dense_flake'),
    sugar: ingredient('brown sugar', '1 tsp/lb', 'brown_sugar'),
    target: '',
    agent_amount: '1 tsp for 5 lb',
  },
  salt_box: { salt: ingredient('coarse salt'), sugar: ingredient('brown sugar'), box: '100 %' },
  brine: { target: '110', water: '100 %' },
  injection: { target: '110', pump: '10 %', salt: ingredient('coarse salt', '2 %', 'dense_flake') },
  inject_cover: { target: '110', pump: '10 %', water: '80 %' },
  ready_mixed: {
    salt: ingredient('coarse salt'),
    sugar: ingredient('brown sugar'),
    agent: 'complete',
    target: '',
    agent_amount: '25 g for 1 kg',
  },
  two_stage: { salt: ingredient('coarse salt', '2.8 %', 'dense_flake') },
  sausage: {
    salt: ingredient('kosher salt', '2.7 %', 'dense_flake'),
    sugar: ingredient('dextrose', '0.3 %'),
    target: '',
    agent_amount: '0.25 %',
  },
  plain: { agent: '', target: '' },
}

/** Another school: what both have in common stays as it was typed. */
export function changeSchool(recipe: Recipe, school: School): Recipe {
  const fresh = blankRecipe(school)
  return { ...fresh, name: '', extras: recipe.extras, hot_part: recipe.hot_part }
}

export const isWet = (school: School): boolean => ['brine', 'injection', 'inject_cover'].includes(school)
export const isPumped = (school: School): boolean => ['injection', 'inject_cover'].includes(school)
/** Under a brine in a tub, whose salt and sugar are of meat and water. */
export const isCovered = (school: School): boolean => ['brine', 'inject_cover'].includes(school)
