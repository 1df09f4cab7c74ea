import { createBrowserRouter, Navigate } from 'react-router'
import { JobPage } from '../job/JobPage.tsx'
import { NoSuchPage, PageError } from '../parts/ErrorBoundary.tsx'
import { Bench } from '../places/Bench.tsx'
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
      { path: '/clocks/:id', lazy: place(() => import('../places/ClockPage.tsx'), 'ClockPage') },
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
          { path: 'arrive', lazy: place(() => import('../surfaces/arrive/ArriveSurface.tsx'), 'ArriveSurface') },
          { path: 'observe', lazy: place(() => import('../surfaces/observe/ObserveSurface.tsx'), 'ObserveSurface') },
          { path: 'trains', lazy: place(() => import('../surfaces/trains/TrainsSurface.tsx'), 'TrainsSurface') },
          { path: 'trouble', lazy: place(() => import('../surfaces/trouble/TroubleSurface.tsx'), 'TroubleSurface') },
          {
            path: 'condition',
            lazy: place(() => import('../surfaces/condition/ConditionSurface.tsx'), 'ConditionSurface'),
          },
          {
            path: 'estimate',
            lazy: place(() => import('../surfaces/estimate/EstimateSurface.tsx'), 'EstimateSurface'),
          },
          { path: 'papers', lazy: place(() => import('../surfaces/papers/PapersSurface.tsx'), 'PapersSurface') },
          { path: 'strip', lazy: place(() => import('../surfaces/strip/StripSurface.tsx'), 'StripSurface') },
          { path: 'clean', lazy: place(() => import('../surfaces/clean/CleanSurface.tsx'), 'CleanSurface') },
          { path: 'assemble', lazy: place(() => import('../surfaces/strip/AssembleSurface.tsx'), 'AssembleSurface') },
          { path: 'power', lazy: place(() => import('../surfaces/power/PowerSurface.tsx'), 'PowerSurface') },
          { path: 'plates', lazy: place(() => import('../surfaces/plates/PlatesSurface.tsx'), 'PlatesSurface') },
          { path: 'test', lazy: place(() => import('../surfaces/test/TestSurface.tsx'), 'TestSurface') },
          { path: 'pivots', lazy: place(() => import('../surfaces/pivots/PivotsSurface.tsx'), 'PivotsSurface') },
          {
            path: 'bushings',
            lazy: place(() => import('../surfaces/bushings/BushingsSurface.tsx'), 'BushingsSurface'),
          },
          { path: 'holes', lazy: place(() => import('../surfaces/holes/HolesSurface.tsx'), 'HolesSurface') },
          { path: 'listen', lazy: place(() => import('../surfaces/listen/JobListen.tsx'), 'JobListen') },
          { path: 'rate', lazy: place(() => import('../surfaces/rate/RateSurface.tsx'), 'RateSurface') },
          { path: 'card', lazy: place(() => import('../surfaces/card/CardSurface.tsx'), 'CardSurface') },
          { path: 'journal', lazy: place(() => import('../surfaces/journal/JournalSurface.tsx'), 'JournalSurface') },
        ],
      },
      { path: '*', element: <NoSuchPage /> },
    ],
  },
])
