/** What is used of the package, whose own types are sources that our strict settings refuse. */
import type Delaunator from 'delaunator';

export default class Constrainautor {
  constructor(triangulation: Delaunator<ArrayLike<number>>);
  /** Makes the line between two corners an edge. Throws an Error where it runs through another corner or crosses such a line. */
  constrainOne(from: number, to: number): number | undefined;
  isConstrained(halfedge: number): boolean;
}
