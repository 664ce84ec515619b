/** Numbers 0 … n − 1 in sets that are joined two by two. */
export class Sets {
  private readonly parents: number[];

  constructor(count: number) {
    this.parents = Array.from({ length: count }, (_, i) => i);
  }

  join(a: number, b: number): void {
    this.parents[this.rootOf(a)] = this.rootOf(b);
  }

  /** Each set with its numbers in order. */
  all(): number[][] {
    const sets = new Map<number, number[]>();
    for (let i = 0; i < this.parents.length; i++) {
      const root = this.rootOf(i);
      const known = sets.get(root);
      if (known) known.push(i);
      else sets.set(root, [i]);
    }
    return [...sets.values()];
  }

  private rootOf(one: number): number {
    let root = one;
    while (this.parents[root] !== root) {
      // Half of the way is left out the next time.
      this.parents[root] = this.parents[this.parents[root]!]!;
      root = this.parents[root]!;
    }
    return root;
  }
}
