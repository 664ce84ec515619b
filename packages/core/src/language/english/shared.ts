/** British English sentences: what several groups of verbs refuse alike. */
import type { Facts } from './facts.ts';

export const SHARED_SENTENCES = {
  along: () => 'This direction lies in the plane of the outline.',
  'axis.about': () => 'Pick an edge or an axis to turn about.',
  'axis.line-does': () => 'This line does not lie in the plane of the profile.',
  'axis.these': () => 'These two points are the same.',
  'axis.through': () => 'A line goes through two points.',
  body: ({ name }: Facts<'name'>) =>
    `${name} has the sizes that its numbers say: change those in the Spec, or its profile. It can be resized in all directions alike, and mirrored.`,
  both: ({ blank, half }: Facts<'blank' | 'half'>) => `Give the ${blank} or the ${half}, not both.`,
  'both.distance': () => 'Give the distance from one to the next, or over all of them, not both.',
  'circle.parts': ({ name, result }: Facts<'name' | 'result'>) =>
    `${name} is linked to ${result} and cannot be part of it.`,
  corner: () => 'a corner is rounded or bevelled, not both',
  'count.whole': () => 'A count is a whole number, 1 or more.',
  'direction.point-edge': () => 'A point has no direction: pick an edge or a face.',
  distance: ({ curve }: Facts<'curve'>) => `The curve is ${curve} mm long.`,
  'dock-taken': ({ name, place, name2, joint }: Facts<'name' | 'place' | 'name2' | 'joint'>) =>
    `${name} of ${place} is joined to ${name2} already (${joint}). Unjoin it first, or choose another dock.`,
  'edge.straight': () => 'Pick a straight edge.',
  'edit.nothing': () => 'Nothing of the profile would be left.',
  'flat.face': () => 'Pick a flat face for the mirror.',
  'flat.solid': ({ name }: Facts<'name'>) => `${name} is no solid.`,
  'flat.solid-raise': ({ name }: Facts<'name'>) => `${name} is no solid: raise it or turn it first.`,
  growth: ({ name }: Facts<'name'>) =>
    `${name} has no sizes that could grow: boxes, cylinders and balls have.`,
  'leg.legs': ({ index, message }: Facts<'index' | 'message'>) => `Row ${index}: ${message}.`,
  'limits.greatest': () => 'The least is more than the greatest: exchange them.',
  locked: ({ name }: Facts<'name'>) => `${name} is locked. Unlock it in Parts first.`,
  members: ({ name }: Facts<'name'>) =>
    `${name} cannot be stretched like this: its members would not stay alike. Resize it in all directions alike, or dissolve it first.`,
  missing: ({ blank, words }: Facts<'blank' | 'words'>) => `Give a ${blank}${words}.`,
  'missing.distance-next': () => 'Give the distance from one to the next, or from the first to the last.',
  'missing.how-far': () => 'Say how far it is turned.',
  'missing.into': () => 'Say which part it is joined to or cut out of.',
  'missing.legs': () => 'A traverse has one leg or more.',
  'missing.pitch': () => 'Say how far apart they are, or how many.',
  'missing.point-type': () => 'Pick the point, or type it.',
  'name-taken.measure': ({ name }: Facts<'name'>) =>
    `There is a measure or wanted fit named ${name} already. Choose another name.`,
  'no-box.parts': ({ name }: Facts<'name'>) => `The box of ${name} is not known yet. Try again.`,
  'no-member.members': ({ name, label }: Facts<'name' | 'label'>) => `${name} has no member ${label}.`,
  'no-pattern': ({ name }: Facts<'name'>) => `${name} is not a pattern.`,
  'no-profile.draw': ({ name }: Facts<'name'>) => `${name} is no profile: draw one first.`,
  'no-such-size': ({ name, blank }: Facts<'name' | 'blank'>) => `${name} has no ${blank} of its own.`,
  'no-surface.closed': ({ name }: Facts<'name'>) => `${name} is no surface: it is closed already.`,
  'no-surface.drawing': ({ name }: Facts<'name'>) => `${name} is a drawing: raise it as a surface first.`,
  'not-taken.was-rack': ({ name }: Facts<'name'>) => `${name} was not taken from a rack.`,
  'nothing.layers': () => 'The layers meet nothing of these parts.',
  'nothing.only': () => 'There is no solid to draw.',
  'operand.already': ({ name, owner }: Facts<'name' | 'owner'>) => `${name} already belongs to ${owner}.`,
  'other-kind': ({ name, words }: Facts<'name' | 'words'>) => `${name} is no ${words}.`,
  'out-of-bounds': ({ label, fault }: Facts<'label' | 'fault'>) => `${label} ${fault}.`,
  'out-of-bounds.this': ({ fault }: Facts<'fault'>) => `This ${fault}.`,
  'out-of-bounds.each': ({ label, fault }: Facts<'label' | 'fault'>) => `${label}: each ${fault}.`,
  parents: ({ name, first }: Facts<'name' | 'first'>) => `${name} and ${first} belong to different parts.`,
  'plane.parts': ({ name }: Facts<'name'>) => `${name} is a plane: set the size of its sheet in the Spec.`,
  'points.circle': () => 'A circle goes through two points across it, or three points on it.',
  'points.these': () => 'These three points stand in one line.',
  'rack-part.changed': ({ name }: Facts<'name'>) =>
    `${name} was changed since it was taken, and that would be lost. Take the part anew, or take that change back first.`,
  'rack-part.loose': ({ message }: Facts<'message'>) => `${message}`,
  'rack-part.no-parameter': ({ parameter }: Facts<'parameter'>) => `there is no parameter ${parameter}.`,
  'rack-part.no-variable': ({ variable, label }: Facts<'variable' | 'label'>) =>
    `there is no variable ${variable} for ${label}.`,
  'rack-part.rebuilt': ({ name }: Facts<'name'>) =>
    `${name} is built in another way in this version: take it anew from the rack.`,
  'range.members': ({ piece }: Facts<'piece'>) => `“${piece}” is no range: the lower number comes first.`,
  'same-part.parts': ({ name }: Facts<'name'>) => `${name} cannot be on both sides.`,
  scale: ({ text }: Facts<'text'>) => `“${text}” is not a scale: say 1:50, or 2:1.`,
  section: ({ name }: Facts<'name'>) => `${name} is no section plane.`,
  'surface.open': ({ name }: Facts<'name'>) =>
    `${name} is an open surface: cap its ends or thicken it first.`,
  'too-few.points': ({ least }: Facts<'least'>) => `A curve like this needs ${least} points or more.`,
  'too-large.layer': ({ value, room }: Facts<'value' | 'room'>) =>
    `A layer is ${value} at this scale; a sheet has room for ${room}. Take larger sheets, or a smaller scale.`,
  'too-many.these': ({ count, maxMembers }: Facts<'count' | 'maxMembers'>) =>
    `These would be ${count} members; a pattern has at most ${maxMembers}. Make it smaller.`,
  'too-many.would-slices': ({ number, mostSlices }: Facts<'number' | 'mostSlices'>) =>
    `That would be ${number} slices; ${mostSlices} is the most.`,
  'unknown-check': ({ name }: Facts<'name'>) => `There is no measure or wanted fit named ${name}.`,
  'unknown-joint': ({ name }: Facts<'name'>) => `There is no joint named ${name}.`,
  'unknown-pin': ({ name }: Facts<'name'>) => `There is no pin named ${name}.`,
  'whole.consists': ({ name }: Facts<'name'>) => `${name} consists of several parts: choose one of them.`,
  within: ({ name, whole }: Facts<'name' | 'whole'>) => `${name} is in ${whole}: choose one of the two.`,
  'zero.all': () => 'All members would stand in one place.',
};
