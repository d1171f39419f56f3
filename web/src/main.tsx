import './noGeneratedCode'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, type RouteObject, RouterProvider } from 'react-router'
import './styles.css'
import { delayBefore, Refused, TryLater, Unreachable } from './api'
import { keepNothing } from './browserId'
import { BrokenPage } from './pages/BrokenPage'
import { MissingPage } from './pages/MissingPage'
import { StudiesPage } from './pages/StudiesPage'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // A refusal stays one however often it is asked for; a server that is away may come back, and
      // one that is busy says when.
      retry: (count, error) =>
        !(error instanceof Refused) &&
        (count < 3 || (error instanceof TryLater && !(error instanceof Unreachable))),
      retryDelay: delayBefore,
    },
  },
})
const routes: RouteObject[] = [
  { path: '/', element: <StudiesPage /> },
  {
    path: '/studies/:id',
    // By its address a study is open to be worked on, to be read, or as its picture alone.
    lazy: async () => {
      const view = new URLSearchParams(location.search).get('view')
      if (view !== 'read' && view !== 'picture') {
        return { Component: (await import('./pages/WorkbenchPage')).WorkbenchPage }
      }
      keepNothing()
      const { ReadingPage } = await import('./reading/ReadingPage')
      return { element: <ReadingPage view={view} /> }
    },
    hydrateFallbackElement: <p className="p-8 text-quiet">Opening the study …</p>,
  },
  {
    path: '/studies/:id/speaker',
    lazy: async () => ({ Component: (await import('./pages/SpeakerPage')).SpeakerPage }),
    hydrateFallbackElement: <p className="p-8 text-quiet">Opening the speaker’s window …</p>,
  },
  { path: '*', element: <MissingPage /> },
]
const router = createBrowserRouter(
  routes.map((route) => ({ ...route, errorElement: <BrokenPage /> })),
)

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
)
