/** The cameras of the picture, set to look as a view does. */
import { FIELD_OF_VIEW, PARALLEL_BACK_MM, eyeDistance, type Camera } from '@kadrel/core';
import { OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';

/** A camera as the graphics library wants it. */
export class DrawnCamera {
  private readonly perspective = new PerspectiveCamera(FIELD_OF_VIEW);
  private readonly parallel = new OrthographicCamera();

  /** @param sceneRadius how far the scene reaches from where the view looks, mm */
  aimed(camera: Camera, sceneRadius: number): PerspectiveCamera | OrthographicCamera {
    const { eye, state } = camera;
    const three = state.projection === 'perspective' ? this.perspective : this.parallel;
    const far = eyeDistance(state);
    const reach = sceneRadius + far + state.height * 4;
    if (three instanceof PerspectiveCamera) {
      three.aspect = camera.width / camera.pixelHeight;
      three.near = Math.max(far / 500, Math.min(far / 4, far - sceneRadius * 2));
    } else {
      const [w, h] = [(state.height * camera.width) / camera.pixelHeight / 2, state.height / 2];
      [three.left, three.right, three.top, three.bottom] = [-w, w, h, -h];
      three.near = -Math.min(PARALLEL_BACK_MM, reach * 2);
    }
    three.far = far + reach * 2;
    three.matrixAutoUpdate = false;
    three.matrix
      .makeBasis(X.set(...camera.right), Y.set(...camera.up), Z.set(...camera.toward))
      .setPosition(...eye);
    three.updateMatrixWorld(true);
    three.updateProjectionMatrix();
    return three;
  }
}

const [X, Y, Z] = [new Vector3(), new Vector3(), new Vector3()];
