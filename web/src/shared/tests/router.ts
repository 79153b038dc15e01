import { createMemoryHistory, createRouter, routeLocationKey, routerKey } from 'vue-router'
import { around } from './server'

/** What a place needs around it that has to do with its address: `around`, and a router at the first address. */
export function routed() {
  const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/', component: {} }] })
  const provide = { [routerKey as symbol]: router, [routeLocationKey as symbol]: router.currentRoute.value }
  return { ...around(), provide }
}
