import '@fontsource-variable/archivo/index.css';
import '@fontsource-variable/spline-sans-mono/index.css';
import './styles.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { Toaster } from 'sonner';
import { askAhead } from './api/call.ts';
import { WithMenus } from './common/WithMenus.tsx';
import { applyTheme, storedTheme } from './common/theme.ts';
import { loadWorkshop } from './loadWorkshop.ts';
import { About } from './screens/About.tsx';
import { Account } from './screens/Account.tsx';
import { Broken } from './screens/Broken.tsx';
import { Confirm } from './screens/Confirm.tsx';
import { NotFound } from './screens/NotFound.tsx';
import { Projects } from './screens/Projects.tsx';
import { SignIn } from './screens/SignIn.tsx';

applyTheme(storedTheme());

const Workshop = lazy(loadWorkshop);
// A project that is opened by its address need not wait for the first screens either.
if (location.pathname.startsWith('/projects/')) void loadWorkshop().catch(() => undefined);

const opening = <p className="p-6">Opening the workshop…</p>;

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', element: <Navigate to="/projects" replace /> },
      { path: '/sign-in', element: <SignIn /> },
      { path: '/confirm', element: <Confirm /> },
      { path: '/projects', element: <Projects /> },
      {
        path: '/projects/:id',
        // The workshop asks for these once it is there.
        loader: ({ params: { id } }) => {
          for (const path of ['/start', `/projects/${id}`]) askAhead(path);
          return null;
        },
        hydrateFallbackElement: opening,
        element: (
          <Suspense fallback={opening}>
            <Workshop />
          </Suspense>
        ),
      },
      { path: '/account', element: <Account /> },
      { path: '/about', element: <About /> },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <WithMenus>
        <RouterProvider router={router} />
      </WithMenus>
      <Toaster position="bottom-center" offset={60} closeButton />
    </QueryClientProvider>
  </StrictMode>,
);
