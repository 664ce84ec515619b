/** British English sentences: what cannot be built of steps of shape. What is wrong, and what to do. */
import type { Facts } from '../facts.ts';
import type { FaultSentences } from './sentences.ts';

const EDGES_ANEW = 'Choose the edges anew, or take the step out.';
const PLACES_ANEW = 'Choose what moves anew, or take the step out.';
const WITHIN_PLANE = 'Move the whole face, or move its corners within its plane.';

export const STEPS_FAULTS = {
  'chosen.no-all': () => ['There are no sharp edges.', EDGES_ANEW],
  'chosen.no-edge-around': ({ face }: Facts<'face'>) => [
    `There is no sharp edge around ${face}.`,
    EDGES_ANEW,
  ],
  'chosen.no-edge-between': ({ face, other }: Facts<'face' | 'other'>) => [
    `There is no sharp edge between ${face} and ${other}.`,
    EDGES_ANEW,
  ],
  'chosen.no-face': ({ face }: Facts<'face'>) => [
    `There is no face ${face}.`,
    'Choose the faces anew, or take the step out.',
  ],
  'chosen.no-inward': () => ['There are no inward edges.', EDGES_ANEW],
  'chosen.no-met': () => ['There are no edges where parts met.', EDGES_ANEW],
  'chosen.no-outward': () => ['There are no outward edges.', EDGES_ANEW],
  'chosen.no-x': () => ['There are no straight edges along X.', EDGES_ANEW],
  'chosen.no-y': () => ['There are no straight edges along Y.', EDGES_ANEW],
  'chosen.no-z': () => ['There are no straight edges along Z.', EDGES_ANEW],
  'rounding.size': ({ what, many }: Facts<'what' | 'many'>) => [
    `${what}: it does not go round ${many} with this size.`,
    'Make it smaller, or choose fewer edges at once.',
  ],
  'shell.other-thickness': () => [
    'Shell: the wall of another thickness does not fit.',
    'Choose a thickness nearer to that of the others.',
  ],
  'shell.apart': () => [
    'Shell: what stands on an open face would come off the rest.',
    'Leave other faces open.',
  ],
  'shell.too-thick': () => [
    'Shell: a wall of this thickness does not fit.',
    'Make it thinner, or choose other faces to leave open.',
  ],
  'push.corner-of-many': () => [
    'More than three faces meet in a corner here, and would no longer.',
    'Choose “straight out of the face”, or move all the faces round this corner.',
  ],
  'push.edge-vanishes': () => ['An edge would shrink to nothing.', 'Move the face by less.'],
  'push.face-too-far': () => ['This face cannot move so far.', 'Move it by less, or choose another face.'],
  'push.not-equally-far': () => ['These faces are not equally far from the point.', 'Move them one by one.'],
  'push.other-face': () => ['Only flat and cylindrical faces go to a point.', 'Give a distance instead.'],
  'push.there-already': () => ['The face is there already.', 'Choose another point, or give a distance.'],
  'push.too-far': () => ['The face cannot move so far.', 'Move it by less, or choose other faces.'],
  'offset.inward': ({ by }: Facts<'by'>) => [
    `The faces cannot all move by ${by} mm.`,
    'Move them in by less than half of what is thinnest.',
  ],
  'offset.outward': ({ by }: Facts<'by'>) => [
    `The faces cannot all move by ${by} mm.`,
    'Move them out by less, or choose other corners.',
  ],
  'draft.angle': () => ['The faces cannot lean by this angle.', 'Take a smaller angle, or fewer faces.'],
  'draft.foot-not-flat': () => ['The foot is not flat.', 'Choose a flat face as the foot.'],
  'draft.foot-of-several': () => ['The foot is one face, and several are chosen.', 'Choose one of them.'],
  'emboss.bends-away': () => [
    'The surface bends too far away under the outline.',
    'Make the outline smaller, or lay it on the solid from another side.',
  ],
  'emboss.beyond': () => [
    'The outline reaches beyond the solid.',
    'Move it onto the solid, or make it smaller.',
  ],
  'emboss.near-rim': () => [
    'The outline comes nearer than its depth to a rim, where the surface cannot be followed.',
    'Make the depth smaller, or keep the outline away from the rim.',
  ],
  'emboss.not-laid': () => ['The outline could not be laid on the solid.', 'Move it a little.'],
  'emboss.too-deep': () => ['The surface cannot be followed at this depth.', 'Make the depth smaller.'],
  'emboss.too-deep-for-bend': () => [
    'The surface cannot be followed at this depth.',
    'Make the depth smaller than its narrowest bend.',
  ],
  'cut-along.into-itself': () => [
    'Led on straight at its ends, the line runs into itself.',
    'Draw it on until it is clear of the solid.',
  ],
  'cut-along.open-among-others': () => [
    'One of these outlines is open, and cuts by itself.',
    'Cut along one open line at a time, or close the outlines.',
  ],
  'halves.do-not-add-up': ({ by }: Facts<'by'>) => [
    'The solid could not be cut cleanly here: the halves do not add up to the whole.',
    `Move the ${by} a little.`,
  ],
  'halves.not-through': ({ by }: Facts<'by'>) => [
    `The ${by} does not go through the solid.`,
    `Move the ${by}, or choose another.`,
  ],
  'flat-faced.bent': () => ['A face would no longer be flat.', 'Move its corners within one plane.'],
  'flat-faced.no-corner': ({ faces }: Facts<'faces'>) => [`There is no corner ${faces}.`, PLACES_ANEW],
  'flat-faced.no-edge': ({ faces }: Facts<'faces'>) => [`There is no edge ${faces}.`, PLACES_ANEW],
  'flat-faced.no-face': ({ faces }: Facts<'faces'>) => [`There is no face ${faces}.`, PLACES_ANEW],
  'flat-faced.round': () => [
    'This goes only for solids whose faces are all flat.',
    'Choose another part, or do it before its edges are rounded.',
  ],
  'reshape.hole': () => ['A face with a hole cannot fold.', WITHIN_PLANE],
  'reshape.inside-out': () => ['The solid would be turned inside out.', 'Move it by less.'],
  'reshape.warp': () => ['Only faces with four corners can warp.', WITHIN_PLANE],
  'soften.faces': ({ faces, max }: Facts<'faces' | 'max'>) => [
    `Softened, it would have ${faces} faces, and ${max} is the most.`,
    'Take fewer levels, or a coarser solid.',
  ],
  'soften.holes-touch': () => [
    'A face has holes in it that touch each other or its border.',
    'Split the solid, so that its faces run round each hole in pieces.',
  ],
  'hull.corners': ({ max }: Facts<'max'>) => [
    `The hull would have more than ${max} corners.`,
    'Let its facets be off by more where the solid is round.',
  ],
  'hull.not-around': () => ['The hull does not hold all of the solid here.', 'Change a size a little.'],
  'mirrored.not-joined': () => ['The solid and its image could not be joined.', 'Move the mirror a little.'],
  'mirrored.touching': () => [
    'The solid and its image would only touch, along an edge or in a point.',
    'Move the mirror into the solid, or clear of it.',
  ],
} satisfies FaultSentences;
