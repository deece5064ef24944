import type { Dialect } from "indigo-quill";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { useEffect, useState } from "react";

/** A dialect by its id, as soon as it is loaded. */
export function useDialect(id: string): Dialect | undefined {
  const [loaded, setLoaded] = useState<Dialect>();
  useEffect(() => {
    let isWanted = true;
    void dialectLoaders[id]().then((made) => {
      if (isWanted) setLoaded(made());
    });
    return () => {
      isWanted = false;
    };
  }, [id]);
  return loaded?.id === id ? loaded : undefined;
}
