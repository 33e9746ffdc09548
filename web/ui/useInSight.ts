import { type RefObject, useEffect, useRef, useState } from "react";

/** Is an element on the screen, or nearly? */
export function useInSight<Kind extends Element = HTMLLIElement>(): [RefObject<Kind | null>, boolean] {
  const element = useRef<Kind>(null);
  const [inSight, setInSight] = useState(false);
  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => setInSight(entry!.isIntersecting), { rootMargin: "200px" });
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, []);
  return [element, inSight];
}
