/** What stands over a view and goes along with its camera. */
import type { Camera } from '@kadrel/core';

/** Drawn again when the camera moves, and when what it shows has changed. */
export abstract class FollowingMarks {
  /** None before the view was drawn for the first time. */
  protected camera: Camera | null = null;

  /** The camera of the view has moved. */
  follow(camera: Camera): void {
    this.camera = camera;
    this.draw(camera);
  }

  /** What is shown has changed. */
  protected redraw(): void {
    if (this.camera) this.draw(this.camera);
  }

  protected abstract draw(camera: Camera): void;
}
