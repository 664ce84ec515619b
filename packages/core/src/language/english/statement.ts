/** British English sentences: reading statements. */
import type { Facts } from './facts.ts';

export const STATEMENT_SENTENCES = {
  'measure-circle': ({ names }: Facts<'names'>) =>
    `What is measured would follow itself: ${names} changes with a variable that is set from it. Measure something else.`,
  'cut-circle': ({ names }: Facts<'names'>) =>
    `A kept cut would follow itself: ${names} changes what it is cut from. Unlink it first.`,
  'ambiguous.consists': ({ name }: Facts<'name'>) =>
    `${name} consists of several parts: say which with “of”, or name the part itself.`,
  'ambiguous.edges': ({ fitting, what }: Facts<'fitting' | 'what'>) =>
    `${fitting} edges could be the ${what}; say which with “near”.`,
  'ambiguous.features': ({ fitting, what }: Facts<'fitting' | 'what'>) =>
    `${fitting} features could be the ${what}; say which with “near”.`,
  'ambiguous.points': ({ found, what }: Facts<'found' | 'what'>) =>
    `There are ${found} points that ${what} could mean; name them by their operand, as in Drill.side&top.`,
  'ambiguous.several': ({ name, dock }: Facts<'name' | 'dock'>) =>
    `Several parts of ${name} have a dock named ${dock}: say which with “of”.`,
  'choice.offered': ({ given, choices }: Facts<'given' | 'choices'>) =>
    `“${given}” is not offered; choose ${choices}.`,
  'direction.minus': () =>
    'A direction is X, Y or Z, with a minus for the other way, or a picked edge or face.',
  'direction.three': () => 'A direction is three numbers, not all zero.',
  'dock-lost.does': ({ name, part, lost }: Facts<'name' | 'part' | 'lost'>) =>
    `${name} of ${part} does not know where it is: ${lost} Change the dock first.`,
  'dock.meant': () => 'Say which dock is meant.',
  'edge.name': () => 'Name the edge by its two faces.',
  'edge.two': ({ at, edgeRules }: Facts<'at' | 'edgeRules'>) =>
    `“${at}” is not an edge: say two faces, as in top&front, or a rule: ${edgeRules}, around top, on from top&front.`,
  empty: ({ value }: Facts<'value'>) => `${value} is empty.`,
  'frame.point': () => 'A point has no axes: pick an edge or a face.',
  'frame.these': () => 'These three points stand in one line.',
  'frame.world': ({ viewFrames }: Facts<'viewFrames'>) =>
    `A frame is world, own, ${viewFrames}, a picked edge or face, or three points.`,
  'itself.would': ({ name }: Facts<'name'>) =>
    `${name} would be made with what is made from it. Take that step out first, or settle it.`,
  'missing.empty': ({ label }: Facts<'label'>) => `${label} is empty.`,
  'missing.still': ({ value, about }: Facts<'value' | 'about'>) => `Still empty: ${value}${about}`,
  'name-taken.part-named': ({ as }: Facts<'as'>) =>
    `There is a part named ${as} already. Choose another name.`,
  'needed.made-stay': ({ name, tool }: Facts<'name' | 'tool'>) =>
    `${name} is made with ${tool}, which has to stay: take that step out of ${name} first.`,
  'no-kernel.nothing': () => 'Nothing is built here.',
  'no-kernel.points': () => 'There is no kernel here: give points by number.',
  'no-member.member': ({ name, member }: Facts<'name' | 'member'>) => `${name} has no member ${member}.`,
  'no-member.member-of': ({ name, member, of }: Facts<'name' | 'member' | 'of'>) =>
    `${name} has no member ${member} of ${of}.`,
  'no-member.of': ({ name, of }: Facts<'name' | 'of'>) => `${name} has no member of ${of}.`,
  'no-new-part': () => 'This makes no new part that could be named. Leave the name out.',
  'no-sheet': () => 'There is no sheet yet: make one with Sheet.',
  'no-such-corner': ({ at, name }: Facts<'at' | 'name'>) => `There is no corner ${at} of ${name}.`,
  'no-such-edge': ({ at, name }: Facts<'at' | 'name'>) => `There is no edge ${at} of ${name}.`,
  'no-such-face': ({ at, name }: Facts<'at' | 'name'>) => `There is no face ${at} of ${name}.`,
  'no-such-feature': ({ what }: Facts<'what'>) => `There is no ${what}.`,
  'no-such-point': ({ what }: Facts<'what'>) => `There is no ${what}.`,
  'not-on-sheet': ({ given, name }: Facts<'given' | 'name'>) => `There is no ${given} on ${name}.`,
  'not-positive.more': ({ label }: Facts<'label'>) => `${label} must be more than zero.`,
  parameter: ({ name, name2, words }: Facts<'name' | 'name2' | 'words'>) =>
    `${name} has no parameter ${name2}${words}.`,
  'plane.flat': () => 'Only a flat face lies in a plane: pick one, or three points.',
  'plane.goes': () => 'A plane goes through three points.',
  'plane.name': ({ name }: Facts<'name'>) =>
    `${name} is no plane: name a plane or a profile, or pick one of its flat faces.`,
  'plane.named': ({ text }: Facts<'text'>) =>
    `There is no plane named ${text}; a plane is plan, front, side, a named one, a flat face or three points.`,
  'plane.these': () => 'These three points stand in one line.',
  'rack-part': ({ path, message }: Facts<'path' | 'message'>) =>
    `This is no rack part, at ${path}: ${message}`,
  regions: () =>
    'Regions are “all”, or a list of { "at": [x, y], "curves": [names] }; picking one writes that.',
  'rows.list': () => 'A list of rows belongs here.',
  'rows.no-row': ({ row, columns }: Facts<'row' | 'columns'>) =>
    `Row ${row} is not a row: give { ${columns} } or a list.`,
  'rows.odd': ({ row, odd, columns }: Facts<'row' | 'odd' | 'columns'>) =>
    `Row ${row}: there is no “${odd}”; a row has ${columns}.`,
  'rows.most': ({ typed, maxRows }: Facts<'typed' | 'maxRows'>) =>
    `There are ${typed} rows, and at most ${maxRows} are taken.`,
  snap: ({ snap, pointKinds }: Facts<'snap' | 'pointKinds'>) => `“${snap}” is not a snap: use ${pointKinds}.`,
  stranger: ({ type, name }: Facts<'type' | 'name'>) => `This ${type} is of another part than ${name}.`,
  'text.most-characters': ({ most }: Facts<'most'>) => `A text of at most ${most} characters belongs here.`,
  'text.in-table': () => 'a text of at most 40 characters belongs here.',
  'too-few': ({ label, least }: Facts<'label' | 'least'>) => `${label}: choose at least ${least}.`,
  'too-few.path': () => 'A path goes through two points or more.',
  'too-many.solids': ({ name, count, maxMembers }: Facts<'name' | 'count' | 'maxMembers'>) =>
    `${name} would come to ${count} solids; ${maxMembers} is the most. Make it smaller.`,
  'type.dock': () =>
    'A dock is “part: dock”, or { "on": part, "dock": name }; a part alone means the best of its docks.',
  'type.name': () => 'The name of one part belongs here.',
  'type.names': () => 'Names belong here, or what is picked.',
  'type.number': () => 'A number or a text belongs here.',
  'type.outlines': ({ formats }: Facts<'formats'>) =>
    `Outlines are ${formats}; headless also { "file": name }.`,
  'type.parameters': () => 'Parameters are “name = value”, with commas between.',
  'type.three-numbers': () =>
    'Three numbers belong here, or { "on": part, "at": face names joined by & }, { "on": part, "dock": name }, or { "pin": name }.',
  'type.three-numbers-belong': () => 'Three numbers belong here.',
  'type.xyz': () => 'Three numbers belong here, for X, Y and Z.',
  'type.view': () => 'A view is { target, bearing, altitude, height, projection }.',
  'unknown-dock.named': ({ name, dock, words }: Facts<'name' | 'dock' | 'words'>) =>
    `${name} has no dock named ${dock}${words}.`,
  'unknown-part': ({ of }: Facts<'of'>) => `There is no part named ${of}.`,
  'unknown-rack-part': ({ name }: Facts<'name'>) => `No rack at hand has a part named ${name}.`,
  'unknown-sheet': ({ given }: Facts<'given'>) => `There is no sheet named ${given}.`,
  wanting: () => 'The shape is not known yet. Try again in a moment.',
};
