/** What ships in the page, with its licence as its package.json says. A check compares this list with the packages. */
export const SHIPPED: readonly { readonly name: string; readonly licence: string; readonly about: string }[] =
  [
    {
      name: 'replicad-opencascadejs',
      licence: 'LGPL-2.1-only',
      about: 'the exact kernel (OpenCASCADE compiled to WebAssembly)',
    },
    { name: 'three', licence: 'MIT', about: 'drawing the views' },
    { name: 'react', licence: 'MIT', about: 'the interface' },
    { name: 'react-dom', licence: 'MIT', about: 'the interface' },
    { name: 'react-router', licence: 'MIT', about: 'addresses of the screens' },
    { name: 'react-hook-form', licence: 'MIT', about: 'forms' },
    { name: '@hookform/resolvers', licence: 'MIT', about: 'forms' },
    { name: '@headlessui/react', licence: 'MIT', about: 'menus, lists and dialogs' },
    { name: '@dnd-kit/core', licence: 'MIT', about: 'dragging in the tree' },
    { name: '@tanstack/react-virtual', licence: 'MIT', about: 'long lists' },
    { name: '@tanstack/react-query', licence: 'MIT', about: 'asking the server' },
    { name: 'zustand', licence: 'MIT', about: 'the state of the workshop' },
    { name: 'immer', licence: 'MIT', about: 'edits as patches' },
    { name: 'zod', licence: 'MIT', about: 'checking what comes in' },
    { name: 'sonner', licence: 'MIT', about: 'short messages' },
    { name: 'clsx', licence: 'MIT', about: 'names of styles' },
    { name: 'lucide-react', licence: 'ISC', about: 'icons' },
    { name: 'tailwindcss', licence: 'MIT', about: 'styles' },
    { name: '@fontsource-variable/archivo', licence: 'OFL-1.1', about: 'typeface of the text' },
    { name: '@fontsource-variable/spline-sans-mono', licence: 'OFL-1.1', about: 'typeface of the numbers' },
  ];
