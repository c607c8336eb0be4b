import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import './app/theme.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { App } from './app/App'
import { Fallback } from './app/Fallback'
import { queryClient } from './app/queryClient'
import { sessionQuery } from './reader/session'
import { applyTheme } from './reader/theme'
import { keepFocus } from './ui/keptFocus'
import { ActsProvider } from './undo/acts'
import { isViewKept } from './wall/read/lastView'

// What everybody waits for is asked for before anything else; a device that showed the wall before will show it again.
void queryClient.prefetchQuery(sessionQuery)
if (isViewKept()) void import('./app/SignedInApp')

// Browsers that know dates and clocks themselves (TC39 Temporal) load nothing for it.
if (!('Temporal' in globalThis)) await import('temporal-polyfill/global')

applyTheme()
keepFocus()
const root = document.getElementById('root')
if (!root) throw new Error('index.html has an element with the id root.')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <BrowserRouter>
        <ActsProvider>
          <Fallback>
            <App />
          </Fallback>
        </ActsProvider>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
)
