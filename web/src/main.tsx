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
import { applyTheme } from './reader/theme'
import { ActsProvider } from './undo/acts'

applyTheme()
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
