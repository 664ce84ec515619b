/** Other pages on the same project: when to look for what they have saved, and telling them that something was. */

export interface Others {
  /** The server has taken edits of this page. */
  saved(): void;
  stop(): void;
}

/** A page that is looked at asks for others’ edits so often, ms. */
const LOOK_MS = 10_000;

/** Looks at once when another page of this browser saves or this one is shown again, and from time to time. */
export function followOthers(projectId: string, look: () => void): Others {
  const channel = new BroadcastChannel(`kadrel ${projectId}`);
  const lookWhenSeen = () => {
    if (document.visibilityState === 'visible') look();
  };
  channel.onmessage = look;
  document.addEventListener('visibilitychange', lookWhenSeen);
  const timer = setInterval(lookWhenSeen, LOOK_MS);
  return {
    saved: () => channel.postMessage('saved'),
    stop() {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', lookWhenSeen);
      channel.close();
    },
  };
}
