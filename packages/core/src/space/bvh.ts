/**
 * A tree of boxes over many small things (triangles, points, curves), for finding the few that a ray or a cone meets.
 * Built once a shape in the kernel's worker; plain typed arrays, so that it can be transferred.
 */

/** N things, M nodes. A node is a leaf when `count` is above 0: its things are `order[first … first + count)`. */
export interface Bvh {
  /** 6·M: min x y z, max x y z. */
  readonly bounds: Float64Array;
  /** M: first thing of a leaf, or the right child of an inner node (the left one follows its parent). */
  readonly first: Uint32Array;
  /** M: things in a leaf, 0 for an inner node. */
  readonly count: Uint32Array;
  /** N: indices of the things. */
  readonly order: Uint32Array;
}

const LEAF_SIZE = 8;

/** @param boxes 6·N: min x y z, max x y z of each thing. Cost: N log N. */
export function buildBvh(boxes: Float64Array): Bvh {
  const things = boxes.length / 6;
  const order = Uint32Array.from({ length: things }, (_, i) => i);
  const max = Math.max(1, 4 * Math.ceil(things / LEAF_SIZE) + 1);
  const bounds = new Float64Array(6 * max);
  const first = new Uint32Array(max);
  const count = new Uint32Array(max);
  const middles = new Float64Array(3 * things);
  for (let i = 0; i < things; i++)
    for (let axis = 0; axis < 3; axis++)
      middles[3 * i + axis] = (boxes[6 * i + axis]! + boxes[6 * i + 3 + axis]!) / 2;
  let nodes = 0;

  const split = (from: number, to: number): void => {
    const node = nodes++;
    encloseRange({ boxes, order, from, to }, bounds, node);
    if (to - from <= LEAF_SIZE) {
      first[node] = from;
      count[node] = to - from;
      return;
    }
    const half = (from + to) >> 1;
    selectMiddle({ order, middles, from, to }, widestAxis({ order, middles, from, to }));
    split(from, half);
    first[node] = nodes;
    split(half, to);
  };
  split(0, things);
  return {
    bounds: bounds.slice(0, 6 * nodes),
    first: first.slice(0, nodes),
    count: count.slice(0, nodes),
    order,
  };
}

/** Things from one place in the order to another, with their boxes. */
interface Range {
  readonly boxes: Float64Array;
  readonly order: Uint32Array;
  readonly from: number;
  readonly to: number;
}

function encloseRange({ boxes, order, from, to }: Range, bounds: Float64Array, node: number): void {
  for (let axis = 0; axis < 3; axis++) {
    let low = Infinity;
    let high = -Infinity;
    for (let i = from; i < to; i++) {
      const box = 6 * order[i]! + axis;
      if (boxes[box]! < low) low = boxes[box]!;
      if (boxes[box + 3]! > high) high = boxes[box + 3]!;
    }
    bounds[6 * node + axis] = low;
    bounds[6 * node + 3 + axis] = high;
  }
}

/** Of the middles of things from one place in the order to another. */
function widestAxis({ middles, order, from, to }: Omit<Range, 'boxes'> & Middles): number {
  let best = 0;
  let widest = -1;
  for (let axis = 0; axis < 3; axis++) {
    let min = Infinity;
    let max = -Infinity;
    for (let i = from; i < to; i++) {
      const m = middles[3 * order[i]! + axis]!;
      if (m < min) min = m;
      if (m > max) max = m;
    }
    if (max - min > widest) [best, widest] = [axis, max - min];
  }
  return best;
}

/** 3·N: of each thing, by which they are sorted. */
interface Middles {
  readonly middles: Float64Array;
}

/** Puts the things below the middle one before it and the others after it. Source: Hoare, Algorithm 65 (1961). */
function selectMiddle({ order, middles, from, to }: Omit<Range, 'boxes'> & Middles, axis: number): void {
  const middle = (from + to) >> 1;
  let [low, high] = [from, to - 1];
  while (low < high) {
    const pivot = middles[3 * order[(low + high) >> 1]! + axis]!;
    let i = low;
    let j = high;
    while (i <= j) {
      while (middles[3 * order[i]! + axis]! < pivot) i++;
      while (middles[3 * order[j]! + axis]! > pivot) j--;
      if (i <= j) {
        const swap = order[i]!;
        order[i] = order[j]!;
        order[j] = swap;
        i++;
        j--;
      }
    }
    if (middle <= j) high = j;
    else if (middle >= i) low = i;
    else return;
  }
}

/** A tree with the number of its first thing among those of all. */
interface Numbered {
  readonly tree: Bvh;
  readonly start: number;
}

/** One tree of several, whose things are numbered on from tree to tree: nothing within them is sorted anew. */
export function mergedBvhs(trees: readonly Bvh[]): Bvh {
  let start = 0;
  const numbered = trees.flatMap((tree): Numbered[] => {
    const one = { tree, start };
    start += tree.order.length;
    return tree.order.length === 0 ? [] : [one];
  });
  const nodes = numbered.reduce((sum, { tree }) => sum + tree.count.length + 1, 0);
  const merged = {
    bounds: new Float64Array(6 * nodes),
    first: new Uint32Array(nodes),
    count: new Uint32Array(nodes),
    order: new Uint32Array(start),
  };
  const used = numbered.length === 0 ? 0 : put(merged, numbered, { node: 0, thing: 0 }).node;
  return {
    bounds: merged.bounds.slice(0, 6 * used),
    first: merged.first.slice(0, used),
    count: merged.count.slice(0, used),
    order: merged.order,
  };
}

/** Up to where a tree that is being made is filled. */
interface Filled {
  readonly node: number;
  readonly thing: number;
}

function put(merged: Bvh, trees: readonly Numbered[], at: Filled): Filled {
  if (trees.length === 1) return copyTree(merged, trees[0]!, at);
  const sorted = [...trees].sort(alongWidest(trees));
  const half = sorted.length >> 1;
  const right = put(merged, sorted.slice(0, half), { ...at, node: at.node + 1 });
  merged.first[at.node] = right.node;
  const end = put(merged, sorted.slice(half), right);
  const { bounds } = merged;
  const [own, a, b] = [6 * at.node, 6 * (at.node + 1), 6 * right.node];
  for (let k = 0; k < 3; k++) {
    bounds[own + k] = Math.min(bounds[a + k]!, bounds[b + k]!);
    bounds[own + 3 + k] = Math.max(bounds[a + 3 + k]!, bounds[b + 3 + k]!);
  }
  return end;
}

function copyTree(merged: Bvh, { tree, start }: Numbered, { node, thing }: Filled): Filled {
  merged.bounds.set(tree.bounds, 6 * node);
  merged.count.set(tree.count, node);
  tree.count.forEach((count, i) => (merged.first[node + i] = tree.first[i]! + (count > 0 ? thing : node)));
  tree.order.forEach((one, i) => (merged.order[thing + i] = start + one));
  return { node: node + tree.count.length, thing: thing + tree.order.length };
}

/** By the middles of their boxes, along the axis on which these are spread most. */
function alongWidest(trees: readonly Numbered[]): (a: Numbered, b: Numbered) => number {
  const middle = ({ tree }: Numbered, axis: number) => tree.bounds[axis]! + tree.bounds[3 + axis]!;
  const spread = [0, 1, 2].map((axis) => {
    const middles = trees.map((one) => middle(one, axis));
    return middles.reduce((m, n) => Math.max(m, n)) - middles.reduce((m, n) => Math.min(m, n));
  });
  const axis = spread.indexOf(Math.max(...spread));
  return (a, b) => middle(a, axis) - middle(b, axis);
}

/** Deepest way through a tree of 2^32 things and some, for a few searches within one another; one number a level. */
const stack = new Uint32Array(512);
let top = 0;

/**
 * Calls `visit` for each thing whose boxes all pass `enter`. `enter` gets the bounds and where the node's six numbers
 * begin. Either may search another tree: the ways through stand on one another in one shared list.
 */
export function searchBvh(
  bvh: Bvh,
  enter: (bounds: Float64Array, at: number) => boolean,
  visit: (thing: number) => void,
): void {
  if (bvh.order.length === 0) return;
  const base = top;
  stack[top++] = 0;
  try {
    while (top > base) {
      const node = stack[--top]!;
      if (!enter(bvh.bounds, 6 * node)) continue;
      const things = bvh.count[node]!;
      const first = bvh.first[node]!;
      if (things > 0) for (let i = first; i < first + things; i++) visit(bvh.order[i]!);
      else {
        stack[top++] = first;
        stack[top++] = node + 1;
      }
    }
  } finally {
    top = base;
  }
}

/** Whether two boxes meet, each given by where its six numbers begin. */
const doMeet = (of: Float64Array, a: number, b: number): boolean =>
  of[a]! <= of[b + 3]! &&
  of[a + 3]! >= of[b]! &&
  of[a + 1]! <= of[b + 4]! &&
  of[a + 4]! >= of[b + 1]! &&
  of[a + 2]! <= of[b + 5]! &&
  of[a + 5]! >= of[b + 2]!;

/**
 * Calls `visit` for each two things whose boxes meet, each pair once, until it returns true. Whole branches that do not meet are left out
 * together, so that it costs less than a search for each thing.
 * @param boxes 6·N, those that the tree was built from
 */
export function searchPairs(
  bvh: Bvh,
  boxes: Float64Array,
  visit: (one: number, other: number) => boolean | undefined,
): void {
  const { bounds, first, count, order } = bvh;
  const inLeaves = (a: number, b: number): boolean => {
    for (let i = first[a]!, end = i + count[a]!; i < end; i++)
      for (let j = a === b ? i + 1 : first[b]!, last = first[b]! + count[b]!; j < last; j++) {
        const [one, other] = [order[i]!, order[j]!];
        if (doMeet(boxes, 6 * one, 6 * other) && visit(one, other)) return true;
      }
    return false;
  };
  const within = (a: number): boolean => {
    if (count[a]! > 0) return inLeaves(a, a);
    return within(a + 1) || within(first[a]!) || between(a + 1, first[a]!);
  };
  const between = (a: number, b: number): boolean => {
    if (!doMeet(bounds, 6 * a, 6 * b)) return false;
    if (count[a]! > 0 && count[b]! > 0) return inLeaves(a, b);
    return count[a]! > 0
      ? between(a, b + 1) || between(a, first[b]!)
      : between(a + 1, b) || between(first[a]!, b);
  };
  if (order.length > 0) within(0);
}
