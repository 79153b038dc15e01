import { ref } from 'vue'
import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'
import { nothingTyped } from './shared/writing/typed'
import type { Role } from './shared/kitchen/roles'
import type { PlaceName } from './shared/frame/places'

declare module 'vue-router' {
  interface RouteMeta {
    place: PlaceName
    title: string
    /** Fills the screen: no rail, no margins. */
    bare?: boolean
    /** Opens without signing in. */
    open?: boolean
    /** The least role that does anything there. */
    least?: Role
  }
}

const routes: RouteRecordRaw[] = [
  {
    path: '/',
    name: 'today',
    component: () => import('./places/today/TodayPlace.vue'),
    meta: { place: 'today', title: 'Today' },
  },
  {
    path: '/plans',
    name: 'plans',
    component: () => import('./places/today/plan/PlansPlace.vue'),
    meta: { place: 'today', title: 'Plans' },
  },
  {
    path: '/plans/new',
    name: 'plan-new',
    component: () => import('./places/today/plan/PlanPlace.vue'),
    props: (route) => ({ name: '', product: String(route.query['product'] ?? '') }),
    meta: { place: 'today', title: 'Plan a meal' },
  },
  {
    path: '/plans/of/:name',
    name: 'plan',
    component: () => import('./places/today/plan/PlanPlace.vue'),
    props: true,
    meta: { place: 'today', title: 'Plan' },
  },
  {
    path: '/buy',
    name: 'buy',
    component: () => import('./places/buy/case/CasePlace.vue'),
    props: (route) => ({ query: route.query }),
    meta: { place: 'buy', title: 'At the case' },
  },
  {
    path: '/buy/prices',
    name: 'prices',
    component: () => import('./places/buy/prices/PricesPlace.vue'),
    meta: { place: 'buy', title: 'Price list' },
  },
  {
    path: '/buy/prices/import',
    name: 'price-import',
    component: () => import('./places/buy/prices/ImportList.vue'),
    meta: { place: 'buy', title: 'Import a price list', least: 'cook' },
  },
  {
    path: '/buy/prices/:id(\\d+)',
    name: 'price',
    component: () => import('./places/buy/prices/PricePlace.vue'),
    props: (route) => ({ id: Number(route.params['id']) }),
    meta: { place: 'buy', title: 'Price list' },
  },
  {
    path: '/buy/ways',
    name: 'ways',
    component: () => import('./places/buy/ways/WaysPlace.vue'),
    meta: { place: 'buy', title: 'Methods' },
  },
  {
    path: '/buy/start',
    name: 'start',
    component: () => import('./places/buy/case/StartBatch.vue'),
    meta: { place: 'buy', title: 'Start a batch', least: 'cook' },
  },
  {
    path: '/bench',
    name: 'bench',
    component: () => import('./places/bench/log/BenchIndex.vue'),
    meta: { place: 'bench', title: 'Bench' },
  },
  {
    path: '/bench/map',
    name: 'map',
    component: () => import('./places/bench/map/MapPlace.vue'),
    meta: { place: 'bench', title: 'Map' },
  },
  {
    path: '/bench/figures',
    name: 'figures',
    component: () => import('./places/bench/cure/FiguresPlace.vue'),
    meta: { place: 'bench', title: 'Nitrite limits and spoon weights' },
  },
  {
    path: '/bench/:code/weigh',
    name: 'weigh',
    component: () => import('./places/bench/weigh/WeighPlace.vue'),
    props: (route) => ({
      code: String(route.params['code']),
      kind: String(route.query['kind'] ?? ''),
      piece: String(route.query['piece'] ?? ''),
    }),
    meta: { place: 'bench', title: 'Weigh', least: 'helper', bare: true },
  },
  {
    path: '/bench/:code/pieces',
    name: 'pieces-table',
    component: () => import('./places/bench/piece/PiecesTable.vue'),
    props: true,
    meta: { place: 'bench', title: 'All pieces' },
  },
  {
    path: '/bench/:code/cure',
    name: 'cure',
    component: () => import('./places/bench/cure/CureDesk.vue'),
    props: true,
    meta: { place: 'bench', title: 'Cure' },
  },
  {
    path: '/bench/:code/diary',
    name: 'diary',
    component: () => import('./places/bench/diary/DiaryPlace.vue'),
    props: true,
    meta: { place: 'bench', title: 'Diary' },
  },
  {
    path: '/bench/:code/piece/:mark',
    name: 'piece',
    component: () => import('./places/bench/piece/PiecePlace.vue'),
    props: true,
    meta: { place: 'bench', title: 'Piece' },
  },
  {
    path: '/bench/:code',
    name: 'log',
    component: () => import('./places/bench/log/BenchPlace.vue'),
    props: true,
    meta: { place: 'bench', title: 'Bench' },
  },
  {
    path: '/fire',
    name: 'fire',
    component: () => import('./places/fire/FirePlace.vue'),
    meta: { place: 'fire', title: 'Fire' },
  },
  {
    path: '/fire/new',
    name: 'fire-new',
    component: () => import('./places/fire/begin/IntoSmoke.vue'),
    meta: { place: 'fire', title: 'Into the smoke', least: 'cook' },
  },
  {
    path: '/fire/practice',
    name: 'practice',
    component: () => import('./places/fire/practice/PracticePlace.vue'),
    meta: { place: 'fire', title: 'Practice' },
  },
  {
    path: '/fire/practice/:id(\\d+)',
    name: 'practice-run',
    component: () => import('./places/fire/practice/PracticeRun.vue'),
    props: (route) => ({ id: Number(route.params['id']) }),
    meta: { place: 'fire', title: 'Practice' },
  },
  {
    path: '/fire/chamber',
    name: 'chamber',
    component: () => import('./places/fire/chamber/ChamberPlace.vue'),
    meta: { place: 'fire', title: 'Chamber' },
  },
  {
    path: '/fire/:id(\\d+)',
    name: 'fire-live',
    component: () => import('./places/fire/tend/LiveView.vue'),
    props: (route) => ({ id: Number(route.params['id']) }),
    meta: { place: 'fire', title: 'Fire' },
  },
  {
    path: '/slice',
    name: 'slice',
    component: () => import('./places/slice/larder/LarderPlace.vue'),
    meta: { place: 'slice', title: 'Larder' },
  },
  {
    path: '/slice/pack/:code/:mark',
    name: 'pack',
    component: () => import('./places/slice/larder/PackPlace.vue'),
    props: true,
    meta: { place: 'slice', title: 'Pack' },
  },
  {
    path: '/slice/board/:code',
    name: 'board',
    component: () => import('./places/slice/board/BoardPlace.vue'),
    props: true,
    meta: { place: 'slice', title: 'Slice and pack' },
  },
  {
    path: '/slice/dishes',
    name: 'dishes',
    component: () => import('./places/slice/dishes/DishesPlace.vue'),
    meta: { place: 'slice', title: 'Dishes' },
  },
  {
    path: '/slice/dishes/:name',
    name: 'dish',
    component: () => import('./places/slice/dishes/DishPlace.vue'),
    props: true,
    meta: { place: 'slice', title: 'Dish' },
  },
  {
    path: '/slice/cupboard',
    name: 'cupboard',
    component: () => import('./places/slice/cupboard/CupboardPlace.vue'),
    meta: { place: 'slice', title: 'Store cupboard' },
  },
  {
    path: '/verdict',
    name: 'verdict',
    component: () => import('./places/verdict/sheet/VerdictIndex.vue'),
    meta: { place: 'verdict', title: 'Verdict' },
  },
  {
    path: '/verdict/:code',
    name: 'strip',
    component: () => import('./places/verdict/sheet/VerdictPlace.vue'),
    props: true,
    meta: { place: 'verdict', title: 'Verdict' },
  },
  {
    path: '/verdict/:code/house-or-shop',
    name: 'ladder',
    component: () => import('./places/verdict/ladder/LadderPlace.vue'),
    props: true,
    meta: { place: 'verdict', title: 'House or shop' },
  },
  {
    path: '/books/import',
    name: 'import',
    component: () => import('./places/books/ImportPlace.vue'),
    meta: { place: 'books', title: 'Import a batch', least: 'cook' },
  },
  {
    path: '/new',
    name: 'new-kitchen',
    component: () => import('./places/door/StartKitchen.vue'),
    meta: { place: 'today', title: 'Start your kitchen', open: true },
  },
  {
    path: '/join/:code',
    name: 'join',
    component: () => import('./places/door/JoinPlace.vue'),
    props: true,
    meta: { place: 'today', title: 'Join a kitchen', open: true },
  },
  {
    path: '/password/:code',
    name: 'password',
    component: () => import('./places/door/NewPassword.vue'),
    props: true,
    meta: { place: 'today', title: 'A new password', open: true },
  },
  {
    path: '/me',
    name: 'own',
    component: () => import('./places/me/OwnPlace.vue'),
    meta: { place: 'kitchen', title: 'My page' },
  },
  {
    path: '/kitchen/people',
    name: 'people',
    component: () => import('./places/kitchen/PeoplePlace.vue'),
    meta: { place: 'kitchen', title: 'People' },
  },
  {
    path: '/kitchen/audit',
    name: 'audit',
    component: () => import('./places/kitchen/AuditPlace.vue'),
    meta: { place: 'kitchen', title: 'Who did what' },
  },
  {
    path: '/kitchen',
    name: 'kitchen',
    component: () => import('./places/kitchen/KitchenPlace.vue'),
    meta: { place: 'kitchen', title: 'Kitchen' },
  },
  {
    path: '/books',
    name: 'books',
    component: () => import('./places/books/BooksPlace.vue'),
    meta: { place: 'books', title: 'Books' },
  },
  {
    path: '/books/batches',
    name: 'batches',
    component: () => import('./places/books/BatchesPlace.vue'),
    meta: { place: 'books', title: 'All batches' },
  },
  {
    path: '/books/yields',
    name: 'yields',
    component: () => import('./places/books/yields/YieldsPlace.vue'),
    meta: { place: 'books', title: 'Yields' },
  },
  {
    path: '/books/unusual',
    name: 'unusual',
    component: () => import('./places/books/UnusualPlace.vue'),
    meta: { place: 'books', title: 'Unusual results' },
  },
  {
    path: '/books/money',
    name: 'money',
    component: () => import('./places/books/MoneyPlace.vue'),
    meta: { place: 'books', title: 'Money' },
  },
  {
    path: '/books/prices',
    name: 'price-book',
    component: () => import('./places/books/prices/PricesPlace.vue'),
    meta: { place: 'books', title: 'Prices over time' },
  },
  {
    path: '/books/trials',
    name: 'trials',
    component: () => import('./places/books/trials/TrialsPlace.vue'),
    meta: { place: 'books', title: 'Trials' },
  },
  {
    path: '/books/trials/:id(\\d+)',
    name: 'trial',
    component: () => import('./places/books/trials/TrialPlace.vue'),
    props: (route) => ({ id: Number(route.params['id']) }),
    meta: { place: 'books', title: 'Trial' },
  },
  {
    path: '/books/in-and-out',
    name: 'everything',
    component: () => import('./places/books/exchange/EverythingPlace.vue'),
    meta: { place: 'books', title: 'In and out' },
  },
  {
    path: '/books/history',
    name: 'history',
    component: () => import('./places/books/exchange/HistoryPlace.vue'),
    meta: { place: 'books', title: 'Past batches', least: 'cook' },
  },
  {
    path: '/taste/:token',
    name: 'taste',
    component: () => import('./places/taste/TastePlace.vue'),
    props: true,
    meta: { place: 'books', title: 'Tasting', bare: true, open: true },
  },
  {
    path: '/books/forecasts',
    name: 'forecasts',
    component: () => import('./places/books/ForecastsPlace.vue'),
    meta: { place: 'books', title: 'How good forecasts were' },
  },
  {
    path: '/:rest(.*)*',
    name: 'nowhere',
    component: () => import('./places/door/NoSuchPage.vue'),
    meta: { place: 'today', title: 'No such page' },
  },
]

export const router = createRouter({ history: createWebHistory(), routes })

/** The next page takes its time. */
export const isOpening = ref(false)
/** The address of a page that did not come, also after a reload; empty: none. */
export const notLoaded = ref('')
let clock: ReturnType<typeof setTimeout> | undefined
router.beforeEach(() => {
  clearTimeout(clock)
  clock = setTimeout(() => (isOpening.value = true), 400)
})
// after an update the page asked for lies in a new build: open it from there, once
router.onError((error: Error, to) => {
  clearTimeout(clock)
  isOpening.value = false
  const key = `dolmetsch:reloaded:${to.fullPath}`
  if (sessionStorage.getItem(key)) {
    notLoaded.value = to.fullPath
    throw error
  }
  sessionStorage.setItem(key, '1')
  location.assign(to.fullPath)
})
router.afterEach((to) => {
  notLoaded.value = ''
  clearTimeout(clock)
  isOpening.value = false
  sessionStorage.removeItem(`dolmetsch:reloaded:${to.fullPath}`)
  nothingTyped()
  const code = to.params['code']
  document.title = [typeof code === 'string' ? code : '', to.meta.title, 'Dolmetsch']
    .filter(Boolean)
    .join(' · ')
})
