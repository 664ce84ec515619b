/** British English sentences: docks and joints. */
import type { Facts } from './facts.ts';

export const JOIN_SENTENCES = {
  'dock-lost.end-any': ({ name }: Facts<'name'>) => `An end of ${name} is not there any more. Unjoin it.`,
  'dock-lost.end-does': ({ name, lost }: Facts<'name' | 'lost'>) =>
    `An end of ${name} does not know where it is: ${lost} Change the dock first.`,
  'dock.end': () => 'Say which dock the next one joins on to.',
  'missing.every': () => 'Say the step from one to the next: along the axes, or around.',
  'name-taken.dock': ({ name, called }: Facts<'name' | 'called'>) =>
    `${name} has a dock named ${called} already. Choose another name.`,
  'no-dock.free-matches': () => 'There is no free dock that matches. Docks match by kind, role and size.',
  'no-dock.free-matches-name': ({ whose }: Facts<'whose'>) =>
    `${whose} has no free dock that matches: choose a dock by its name, or make one.`,
  'no-dock.parts': () => 'None of these parts has a free dock of that name: make one first.',
  'no-dock.start': ({ name, place }: Facts<'name' | 'place'>) =>
    `${name} has no other dock that matches ${place}.`,
  'no-joints.joint': () => 'Nothing is joined yet.',
  'no-joints.parts': () => 'None of these parts is joined.',
  'no-length': () => 'Start and end of the part are one place: a run of it gets nowhere.',
  'not-positive.size': () => 'A size is more than zero; 0 takes it away.',
  'part.dock': () => 'Say on which part the dock is: pick a place of it, or fill in the part.',
  'same-part.both-docks': () => 'Both docks are of one part.',
  'same-part.start': () => 'Both ends of a run are docks of one part.',
  'too-few.run': () => 'A run has two pieces or more.',
  'too-many.count': ({ maxAtOnce }: Facts<'maxAtOnce'>) => `${maxAtOnce} docks at once are the most.`,
  'too-many.joints': ({ maxJoints }: Facts<'maxJoints'>) => `${maxJoints} joints at once are the most.`,
  'too-many.run': ({ maxPieces }: Facts<'maxPieces'>) => `A run has ${maxPieces} pieces at most.`,
  'unknown-dock.dock': ({ name, dock }: Facts<'name' | 'dock'>) => `${name} has no dock named ${dock}.`,
};
