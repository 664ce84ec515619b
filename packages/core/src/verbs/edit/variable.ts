import { withoutPlace } from '../../language/reason.ts';
import { recalculate } from '../../document/recalculate.ts';
import { takenFollow } from '../../racks/follow.ts';
import { variablesOf } from '../../document/variables.ts';
import { variableNameFault } from '../../quantity/variables.ts';
import { readMeasures } from '../../statement/measuresFollow.ts';
import { declareVerb, needed, refuseFor } from '../../statement/declare.ts';

/** Gives a variable its value; every number that depends on it follows. */
export const variable = declareVerb({
  id: 'variable',
  name: 'Set variable',
  group: 'edit',
  about: 'Names a value that numbers can refer to; they follow when it changes.',
  words: ['parameter', 'constant', 'formula', 'name a number'],
  blanks: {
    name: needed('text', 'variable', 'Letters, digits and _.'),
    value: needed('text', 'value', 'A number, with a unit or a formula.'),
  },
  sentence: 'Set variable {name} to {value}',
  apply(draft, { name, value }, context) {
    const badName = variableNameFault(name);
    if (badName) return refuseFor(badName, 'name');
    draft.variables[name] = value;
    readMeasures(draft, context);
    const { faults } = variablesOf(draft);
    const own = faults.find((fault) => fault.name === name) ?? faults[0];
    if (own?.name === name) return refuseFor(own.why, 'value');
    // Of another variable the place is no place in this text.
    if (own) return refuseFor(withoutPlace(own.why), 'value');
    const problem = recalculate(draft)[0] ?? takenFollow(draft, () => context.newId());
    return problem ? refuseFor(problem, 'value') : {};
  },
});
