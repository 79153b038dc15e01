import '@fontsource-variable/archivo/standard.css'
import './styles.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'

const queryClient = new QueryClient({
  defaultOptions: { queries: { retry: false, staleTime: 5_000, refetchOnWindowFocus: true } },
})
createApp(App).use(router).use(VueQueryPlugin, { queryClient }).mount('#app')
