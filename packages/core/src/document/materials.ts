/**
 * Densities, g/cm³. Sources: EN 1991-1-1:2002, annex A, tables A.1 to A.5, weights in kN/m³ divided by 9.81 m/s² (from memory); for what is
 * printed the usual data sheets, without a single source.
 */
export const MATERIALS = {
  pla: { name: 'PLA', density: 1.24, source: 'data sheets' },
  petg: { name: 'PETG', density: 1.27, source: 'data sheets' },
  abs: { name: 'ABS', density: 1.04, source: 'data sheets' },
  pa12: { name: 'Nylon 12', density: 1.01, source: 'data sheets' },
  acrylic: { name: 'Acrylic sheet', density: 1.22, source: 'EN 1991-1-1, A.5: 12.0 kN/m³' },
  softwood: { name: 'Softwood C24', density: 0.43, source: 'EN 1991-1-1, A.3: 4.2 kN/m³' },
  plywood: { name: 'Softwood plywood', density: 0.51, source: 'EN 1991-1-1, A.3: 5.0 kN/m³' },
  mdf: { name: 'Medium-density fibreboard', density: 0.82, source: 'EN 1991-1-1, A.3: 8.0 kN/m³' },
  glass: { name: 'Glass', density: 2.55, source: 'EN 1991-1-1, A.5: 25.0 kN/m³' },
  concrete: { name: 'Concrete', density: 2.45, source: 'EN 1991-1-1, A.1: 24.0 kN/m³' },
  aluminium: { name: 'Aluminium', density: 2.75, source: 'EN 1991-1-1, A.4: 27.0 kN/m³' },
  steel: { name: 'Steel', density: 7.85, source: 'EN 1991-1-1, A.4: 77.0 kN/m³' },
} as const;
/** One of the materials that masses are given in. */
export type Material = keyof typeof MATERIALS;

/** @param volume mm³ @returns g */
export const massOf = (volume: number, material: Material): number =>
  (volume * MATERIALS[material].density) / 1000;

/** All of them. */
export const MATERIAL_LIST = Object.keys(MATERIALS) as [Material, ...Material[]];
