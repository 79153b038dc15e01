import '@fontsource-variable/archivo/standard.css'
import './styles.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { asksAgain } from './shared/api/client'
import { tellZone } from './shared/quantity/when'
import { guardSecondTouch } from './shared/ui/secondTouch'

const queryClient = new QueryClient({
  defaultOptions: {
    queries: { retry: asksAgain, staleTime: 5_000, refetchOnWindowFocus: true, networkMode: 'always' },
  },
})
// with it the application opens in a garage without network; a browser that has none does without
if ('serviceWorker' in navigator && import.meta.env.PROD) void navigator.serviceWorker.register('/worker.js')
tellZone()
guardSecondTouch(document)
createApp(App).use(router).use(VueQueryPlugin, { queryClient }).mount('#app')
