import '@fontsource/libre-caslon-display/latin-400.css'
import '@fontsource/libre-caslon-text/latin-400.css'
import '@fontsource-variable/source-sans-3/wght.css'
import './app/components.css'
import './app/tokens.css'
import { MantineProvider } from '@mantine/core'
import { Notifications } from '@mantine/notifications'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router/dom'
import { queryClient } from './data/queries.ts'
import { router } from './app/routes.tsx'
import { cssVariables, theme } from './app/theme.ts'
import { ConflictDialog } from './parts/conflict.tsx'
import { PedalProvider } from './pedal/Pedal.tsx'

const root = document.getElementById('root')
if (!root) throw new Error('The page has no root.')
createRoot(root).render(
  <StrictMode>
    <MantineProvider theme={theme} cssVariablesResolver={cssVariables} defaultColorScheme="auto">
      <Notifications position="top-right" />
      <ConflictDialog />
      <QueryClientProvider client={queryClient}>
        <PedalProvider>
          <RouterProvider router={router} />
        </PedalProvider>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
)
