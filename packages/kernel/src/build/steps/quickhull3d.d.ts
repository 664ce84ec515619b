/** The package's own entry leaves out file endings, which Node does not take; this is the same in one file, without types. */
declare module 'quickhull3d/dist/quickhull3d.js' {
  export { default } from 'quickhull3d';
}
