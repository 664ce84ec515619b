export { madeItems, rackPartFault, usualValues, type ParameterValues } from './made.ts';
export { gatheredPart, type Gathering } from './gathered.ts';
export { putRackPart, remake, type Taking } from './put.ts';
