import { emptyDocument } from '@kadrel/core';
import type { Built } from './built.ts';
import {
  cornerAt,
  placesInto,
  placesWith,
  runsFrom,
  sortOf,
  wordsOfPlace,
  wordsOfPlaces,
  type SelectedPlace,
  type SelectedPlaces,
} from './places.ts';

const none: Built = { of: null, parts: {}, wholes: {}, failures: [], notices: [], factsOf: () => undefined };
const edge = { on: 'box', at: 'front&top', near: [5, 0, 10] };
const corner = { on: 'box', at: 'front&right&top', near: [10, 0, 10] };
const of = (...list: SelectedPlace[]): SelectedPlaces => ({ part: 'box', list });

test('what a name stands for: a face, an edge, a corner, or a rule', () => {
  const sorts = ['top', 'front&top', 'front&right&top', 'along z', 'around top', 'all'].map(sortOf);
  expect(sorts).toEqual(['face', 'edge', 'corner', 'rule', 'rule', 'rule']);
  // What was picked is called as it is.
  expect(sortOf({ on: 'box', at: 'all', near: [0, 0, 0] })).toBe('face');
});

test('what runs on from an edge stands for it, and keeps where it was picked', () => {
  const [picked, named, ...others] = runsFrom([edge, 'front&top', corner, 'along z', 'top']);
  expect(others).toEqual([]);
  expect(picked).toEqual({ from: edge, run: { ...edge, at: 'on from front&top' } });
  expect(named).toEqual({ from: 'front&top', run: 'on from front&top' });
  expect([picked!.run, named!.run].map(sortOf)).toEqual(['rule', 'rule']);
  expect(wordsOfPlace(picked!.run, emptyDocument())).toBe('all edges on from front · top');
  expect(wordsOfPlace({ ...edge, at: 'all' }, emptyDocument())).toBe('all');
});

test('clicks and regions replace, add, take away and toggle', () => {
  const before = of('top', edge);
  const taken = of(edge, corner);
  expect(placesWith(before, taken, 'replace')).toEqual(of(edge, corner));
  expect(placesWith(before, taken, 'add')).toEqual(of('top', edge, corner));
  expect(placesWith(before, taken, 'take away')).toEqual(of('top'));
  expect(placesWith(before, taken, 'toggle')).toEqual(of('top', corner));
  expect(placesWith(of(edge), of(edge), 'toggle')).toBeNull();
  // Of two edges of one name the point tells which.
  const other = { ...edge, near: [5, 0, 20] };
  expect(placesWith(of(edge), of(other), 'toggle')).toEqual(of(edge, other));
  // What is selected is of one part.
  expect(placesWith({ part: 'rod', list: ['side'] }, taken, 'add')).toEqual(taken);
});

test('a verb takes what it gathers', () => {
  const document = emptyDocument();
  const into = (verb: string, ...list: SelectedPlace[]) =>
    placesInto(verb, { places: of(...list), document, built: none });
  expect(into('fillet', edge, 'along z', corner)).toEqual({ part: 'box', edges: [edge, 'along z'] });
  // A face stands for the edges round it.
  expect(into('chamfer', 'top')).toEqual({ part: 'box', edges: ['around top'] });
  expect(into('reshape', 'top', edge, corner)).toEqual({ part: 'box', places: ['top', edge, corner] });
  expect(into('offset-face', 'top', edge)).toEqual({ part: 'box', faces: ['top'] });
  // Its open faces, and not those of another thickness too.
  expect(into('shell', 'top')).toEqual({ part: 'box', open: ['top'] });
  expect(into('turn', edge)).toEqual({ line: edge });
  expect(into('turn', edge, corner)).toEqual({});
  expect(placesInto('fillet', { places: null, document, built: none })).toEqual({});
});

test('it is told in words, and a corner by where it is', () => {
  const document = emptyDocument();
  expect(wordsOfPlaces(of(edge), document)).toBe('front · top');
  expect(wordsOfPlaces(of('top', edge, corner, 'all'), document)).toBe('1 rule, 1 face, 1 edge, 1 corner');
  const features = {
    names: ['front&right&top'],
    pointName: Uint32Array.of(0, 0),
    points: Float64Array.of(10, 0, 10, 10, 0, 30),
  };
  const at = (one: SelectedPlace) => cornerAt(features as never, [one]);
  expect(at('front&right&top')).toEqual([10, 0, 10]);
  expect(at({ ...corner, near: [10, 0, 29] })).toEqual([10, 0, 30]);
  expect(at(edge)).toBeUndefined();
});
