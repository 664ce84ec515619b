/** Facets as nine numbers in a row. */

/** Writes the corners of a facet. */
export function fill(
  triangle: Float64Array,
  positions: ArrayLike<number>,
  triangles: Uint32Array,
  t: number,
): void {
  for (let corner = 0; corner < 3; corner++) {
    const at = 3 * triangles[3 * t + corner]!;
    for (let k = 0; k < 3; k++) triangle[3 * corner + k] = positions[at + k]!;
  }
}
