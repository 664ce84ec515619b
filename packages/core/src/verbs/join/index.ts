import { dock } from './dock.ts';
import { joinDocks } from './join-docks.ts';
import { joinAll } from './join-all.ts';
import { run } from './run.ts';
import { closeJoints } from './close-joints.ts';
import { changeJoint } from './change-joint.ts';
import { unjoin } from './unjoin.ts';
import { changeDock } from './change-dock.ts';
import { removeDock } from './remove-dock.ts';

/** In the order in which people see them. */
export const JOIN = [
  dock,
  joinDocks,
  joinAll,
  run,
  closeJoints,
  changeJoint,
  unjoin,
  changeDock,
  removeDock,
] as const;
