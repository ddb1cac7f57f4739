import '@fontsource-variable/instrument-sans';
import '@fontsource-variable/source-serif-4/opsz.css';
import '@fontsource-variable/source-serif-4/opsz-italic.css';
import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@mantine/spotlight/styles.css';
import './styles.css';

import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { App } from './App';
import { newQueryClient } from './api/queryClient';
import { ShelfPage } from './features/shelf/ShelfPage';
import { theme } from './theme';
import { NotFound } from './ui/NotFound';

const client = newQueryClient();

const router = createBrowserRouter([
  // A window of its own, for a screen beside the cards.
  { path: '/table/:id', lazy: async () => ({ Component: (await import('./features/table/TableWindow')).default }) },
  {
    element: <App />,
    children: [
      { path: '/', element: <ShelfPage /> },
      // The editor is large: the shelf does not wait for it.
      { path: '/bench/:id', lazy: async () => ({ Component: (await import('./features/bench/BenchPage')).default }) },
      { path: '/desks/:name?', lazy: async () => ({ Component: (await import('./features/desks/DesksPage')).default }) },
      { path: '/library/:name?', lazy: async () => ({ Component: (await import('./features/library/LibraryPage')).default }) },
      { path: '/notes', lazy: async () => ({ Component: (await import('./features/notes/NotesPage')).default }) },
      { path: '/book', lazy: async () => ({ Component: (await import('./features/book/BookPage')).default }) },
      { path: '/programme/:uid?', lazy: async () => ({ Component: (await import('./features/programme/ProgrammePage')).default }) },
      { path: '/practice/desk/:uid', lazy: async () => ({ Component: (await import('./features/practice/DeskPractice')).default }) },
      { path: '/practice/:id?', lazy: async () => ({ Component: (await import('./features/practice/PracticePage')).default }) },
      { path: '/keep', lazy: async () => ({ Component: (await import('./features/keep/KeepPage')).default }) },
      { path: '/show/:id', lazy: async () => ({ Component: (await import('./features/show/ShowPage')).default }) },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <MantineProvider theme={theme} defaultColorScheme="auto">
        <Notifications position="bottom-right" />
        <QueryClientProvider client={client}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  );
}
