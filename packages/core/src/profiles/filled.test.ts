import { circle, line, type Curve } from '../curves/curve.ts';
import { filledDistance } from './filled.ts';
import { depthAt, type Path } from './outline.ts';

const loop = (...curves: readonly Curve[]): Path => ({
  closed: true,
  curves: curves.map((curve, i) => ({ name: `c${i}`, curve })),
});

test('a ring between two circles', () => {
  const at = filledDistance([loop(circle([1, 2], 5)), loop(circle([1, 2], 3))]);
  for (let angle = 0; angle < 360; angle += 7.5) {
    const way = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)] as const;
    for (const [radius, expected] of [
      [0.5, 2.5],
      [2.9999995, 5e-7],
      [3.0000005, -5e-7],
      [4.25, -0.75],
      [4.9999995, -5e-7],
      [5.0000005, 5e-7],
      [9, 4],
    ] as const)
      expect(at([1 + radius * way[0], 2 + radius * way[1]])).toBeCloseTo(expected, 12);
  }
});

test('a half ellipse on a line, beside its true curve', () => {
  const at = filledDistance([
    loop(
      { kind: 'ellipse', centre: [0, 0], x: [6, 0], y: [0, 2], first: 0, sweep: 180 },
      line([-6, 0], [6, 0]),
    ),
  ]);
  for (let t = 0.05; t < Math.PI; t += 0.1) {
    // Source: the normal of x = a cos t, y = b sin t is (b cos t, a sin t).
    const [p, n] = [[6 * Math.cos(t), 2 * Math.sin(t)] as const, [2 * Math.cos(t), 6 * Math.sin(t)] as const];
    const size = Math.hypot(...n);
    for (const off of [-5e-7, 5e-7])
      expect(at([p[0] + (off * n[0]) / size, p[1] + (off * n[1]) / size])).toBeCloseTo(off, 12);
  }
  expect(at([0, -1])).toBeCloseTo(1, 12);
});

test('a free curve, and points level with its corners and turns, lie where flattened curves say', () => {
  const drop: Path = loop(
    {
      kind: 'bezier',
      points: [
        [0, 0],
        [6, 1],
        [5, 8],
        [0, 9],
      ],
    },
    {
      kind: 'bezier',
      points: [
        [0, 9],
        [-7, 8],
        [-3, 1],
        [0, 0],
      ],
    },
  );
  const at = filledDistance([drop]);
  for (let x = -6; x <= 6; x += 0.5)
    for (let y = -1; y <= 10; y += 0.5) {
      const distance = at([x, y]);
      if (Math.abs(distance) > 0.05) expect(distance < 0).toBe(depthAt([drop], [x, y]) === 1);
    }
});
