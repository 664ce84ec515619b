/** What is being built, told to whoever watches, and what is not to be built since a kernel has stopped over it. */
import { faultOf } from '@kadrel/core';
import { BuildError, isFatal } from './occt/occt.ts';

/** Looks on while contents are built, which are known by their keys. */
export class BuildWatch {
  /** Called with the key of each content that is built from then on, and with that of the outer one again after it. */
  onBuilding: ((key: string) => void) | undefined;
  /** Over what a kernel has stopped before, and how: that is reported, and not tried again. */
  poisoned: ReadonlyMap<string, string> = new Map();
  /** What is being built, and within it what that is made of. */
  private readonly building: string[] = [];

  /** Where a kernel stops, what was last told stays. Throws BuildError where it has stopped over this before. */
  over<T>(key: string, work: () => T): T {
    const poison = this.poisoned.get(key);
    if (poison !== undefined) throw new BuildError(faultOf('kernel.stopped', { poison }));
    this.building.push(key);
    this.onBuilding?.(key);
    try {
      const made = work();
      this.leave();
      return made;
    } catch (error) {
      if (!isFatal(error)) this.leave();
      throw error;
    }
  }

  private leave(): void {
    this.building.pop();
    const outer = this.building.at(-1);
    if (outer !== undefined) this.onBuilding?.(outer);
  }
}
