/** Values while the pointer drags, straight to the fields of the statement bar: nothing here renders React. */
type Listener = (text: string) => void;
const listeners = new Map<string, Listener>();

/** Numbers that follow the pointer without React. */
export const live = {
  /** A field that shows the entry `key`; returns how to take it out again. */
  listen(key: string, listener: Listener): () => void {
    listeners.set(key, listener);
    return () => {
      if (listeners.get(key) === listener) listeners.delete(key);
    };
  },
  tell(key: string, text: string): void {
    listeners.get(key)?.(text);
  },
};
