import { section } from '../shared/section.ts';
import { change } from './change.ts';
import { chooseAnew } from './choose-anew.ts';
import { relay } from './relay.ts';
import { repoint } from './repoint.ts';
import { openings } from './openings.ts';
import { levels } from './levels.ts';
import { setAxis } from './set-axis.ts';
import { movePoint } from './handles.ts';
import { start } from './start.ts';
import { settle } from './settle.ts';
import { step } from './steps.ts';
import { rename } from './rename.ts';
import { number } from './number.ts';
import { group } from './group.ts';
import { ungroup } from './ungroup.ts';
import { arrange } from './arrange.ts';
import { deleteParts } from './delete.ts';
import { hide } from './hide.ts';
import { show } from './show.ts';
import { lock } from './lock.ts';
import { changeTaken } from './change-taken.ts';
import { updateTaken } from './update-taken.ts';
import { variable } from './variable.ts';
import { forgetVariable } from './forget-variable.ts';
import { scene } from './scene.ts';
import { unpin } from './unpin.ts';
import { keepView } from './keep-view.ts';
import { forgetView } from './forget-view.ts';

/** In the order in which people see them, under heads. */
export const EDIT_SECTIONS = [
  section('Numbers and tables', [
    change,
    relay,
    repoint,
    openings,
    levels,
    setAxis,
    movePoint,
    start,
    step,
    chooseAnew,
    settle,
    changeTaken,
    updateTaken,
  ]),
  section('Parts and groups', [rename, number, group, ungroup, arrange, deleteParts, hide, show, lock]),
  section('Variables, scene and views', [variable, forgetVariable, scene, unpin, keepView, forgetView]),
] as const;
