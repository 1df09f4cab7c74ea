import { createBrowserRouter, Navigate } from 'react-router'
import { NoSuchPage, PageError } from '../parts/ErrorBoundary.tsx'
import { Bench } from '../places/Bench.tsx'
import { SURFACES } from '../surfaces/index.ts'
import { JobPage } from './JobPage.tsx'
import { Shell } from './Shell.tsx'

const place = (load: () => Promise<Record<string, React.ComponentType>>, name: string) => async () => ({
  Component: (await load())[name],
})

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <PageError />,
    hydrateFallbackElement: <p style={{ padding: '2rem' }}>Opening…</p>,
    children: [
      { path: '/', element: <Bench /> },
      { path: '/take-in', lazy: place(() => import('../places/TakeIn.tsx'), 'TakeIn') },
      { path: '/clocks', lazy: place(() => import('../places/Clocks.tsx'), 'Clocks') },
      { path: '/owners/:id', lazy: place(() => import('../places/OwnerPage.tsx'), 'OwnerPage') },
      { path: '/welcome', lazy: place(() => import('../places/FirstRun.tsx'), 'FirstRun') },
      { path: '/clocks/:id', lazy: place(() => import('../places/ClockPage.tsx'), 'ClockPage') },
      { path: '/care', lazy: place(() => import('../places/Care.tsx'), 'Care') },
      { path: '/year', lazy: place(() => import('../places/Year.tsx'), 'Year') },
      { path: '/reckoner', lazy: place(() => import('../places/Reckoner.tsx'), 'Reckoner') },
      { path: '/reckoner/:name', lazy: place(() => import('../places/Reckoner.tsx'), 'Reckoner') },
      { path: '/drawers', lazy: place(() => import('../places/Drawers.tsx'), 'Drawers') },
      { path: '/drawers/:kind', lazy: place(() => import('../places/Drawers.tsx'), 'Drawers') },
      { path: '/practice', lazy: place(() => import('../places/Practice.tsx'), 'Practice') },
      { path: '/tables', lazy: place(() => import('../places/Tables.tsx'), 'Tables') },
      { path: '/tables/:name', lazy: place(() => import('../places/Tables.tsx'), 'Tables') },
      { path: '/settings', lazy: place(() => import('../places/SettingsPage.tsx'), 'SettingsPage') },
      {
        path: '/jobs/:id',
        element: <JobPage />,
        errorElement: <PageError />,
        children: [
          { index: true, element: <Navigate to="arrive" replace /> },
          ...SURFACES.map(({ path, load }) => ({ path, lazy: async () => ({ Component: await load() }) })),
        ],
      },
      { path: '*', element: <NoSuchPage /> },
    ],
  },
])
