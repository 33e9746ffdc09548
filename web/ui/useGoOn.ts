import { useEffect, useRef } from "react";
import { useNavigate } from "react-router";

/**
 * Goes to an address, unless the maker has left the component meanwhile: what was waited for never takes anyone away from where they
 * have gone since.
 */
export function useGoOn(): (path: string) => Promise<void> {
  const navigate = useNavigate();
  const left = useRef(false);
  useEffect(() => {
    left.current = false;
    return () => {
      left.current = true;
    };
  }, []);
  return async (path) => {
    if (!left.current) await navigate(path);
  };
}
