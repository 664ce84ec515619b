/** Whether a point lies in one of the triangles that fill a region. @param triangles x and y of three corners each */
export function fillsPoint(triangles: Float64Array, [x, y]: readonly [number, number]): boolean {
  for (let i = 0; i + 5 < triangles.length; i += 6) {
    let sides = 0;
    for (let k = 0; k < 3; k++) {
      const [ax, ay] = [triangles[i + 2 * k]!, triangles[i + 2 * k + 1]!];
      const [bx, by] = [triangles[i + ((2 * k + 2) % 6)]!, triangles[i + ((2 * k + 3) % 6)]!];
      sides += Math.sign((bx - ax) * (y - ay) - (by - ay) * (x - ax));
    }
    // On a border one of the three says neither.
    if (Math.abs(sides) >= 2) return true;
  }
  return false;
}
