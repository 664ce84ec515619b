/** The picture on the card of a project. */
import { cameraOf, fitted } from '@kadrel/core';
import { reachFrom } from './shownModel.ts';
import type { Stage } from './stage.ts';

/** Of a card, pixels. */
const CARD = { width: 480, height: 300 } as const;
const CARD_MARGIN = 1.05;

/**
 * Everything in sight, looked at as the active view does, drawn small; the views are to be drawn anew afterwards. Null where there
 * is no canvas to draw on.
 */
export function cardPicture(stage: Stage): Promise<Blob | null> {
  const width = Math.min(CARD.width, stage.canvas.clientWidth);
  const height = Math.min(CARD.height, stage.canvas.clientHeight);
  if (width === 0 || height === 0) return Promise.resolve(null);
  const view = stage.panes.active.travel.view;
  const all = stage.model.box ? fitted(view, stage.model.box, width / height) : view;
  const camera = cameraOf({ ...all, height: all.height * CARD_MARGIN }, width, height);
  const { grid } = stage.session.store.getState().document.scene;
  // Outlines of many are left out, as while a view moves: they cost most, and are not seen so small.
  stage.picture.render(
    camera,
    { left: 0, top: 0, width, height },
    {
      display: 'edges',
      gridStep: grid,
      sceneRadius: reachFrom(stage.model.box, all.target),
      isMoving: true,
      ...stage.model.cutting(stage.panes.active.name),
    },
  );
  const picture = stage.picture.thumbnail({ width, height });
  stage.panes.invalidate();
  return picture;
}
