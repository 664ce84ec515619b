/** Nodes and weights of Gauss and Legendre's rule of five points. Source: Abramowitz and Stegun, table 25.4, from memory. */
export const GAUSS: readonly (readonly [node: number, weight: number])[] = [
  [0, 0.5688888888888889],
  [-0.5384693101056831, 0.47862867049936647],
  [0.5384693101056831, 0.47862867049936647],
  [-0.906179845938664, 0.23692688505618908],
  [0.906179845938664, 0.23692688505618908],
];
